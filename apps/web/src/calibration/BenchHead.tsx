import { Button, Select, Text, Title } from '@mantine/core';
import { Link, useNavigate } from 'react-router';
import { grams } from '../kernel/format.ts';
import classes from './Bench.module.css';
import type { BenchView } from './useBench.ts';

/** Which station this is, what it aims at, and the one next thing to do. */
export function BenchHead({
  view,
  instruction,
  onNewBag,
  check,
  opening,
  usedG,
}: {
  view: BenchView;
  check: boolean;
  /** Whether an opening is in hand, to go back to. */
  opening: boolean;
  instruction: string;
  /** Grams of this grinder since the opening began, or else today. */
  usedG: number;
  /** Null while a shot runs. */
  onNewBag: (() => void) | null;
}) {
  const { grinder, group, groups } = view;
  const { recipe } = grinder;
  const navigate = useNavigate();
  return (
    <div className={classes.head}>
      <div className={classes.what}>
        <Text className="faint">
          {grinder.name}, {grinder.coffee}, {group.name}
        </Text>
        <div aria-live="polite">
          <Title order={1}>{instruction}</Title>
        </div>
      </div>
      <div className={classes.aim}>
        <Text>
          <span className="number">{grams(recipe.doseG)}</span> in,{' '}
          <span className="number">{grams(recipe.yieldG)}</span> out,{' '}
          <span className="number">
            {recipe.timeMinS}–{recipe.timeMaxS} s
          </span>
        </Text>
        {grinder.dualWalled && <Text className="faint">Dual-walled basket: judge by yield and taste, move little</Text>}
        {usedG > 0 && (
          <Text className="faint">
            {grams(usedG)} of coffee used {opening ? 'since the opening began' : 'today'}
          </Text>
        )}
      </div>
      {opening && !check && (
        <Button variant="default" component={Link} to="/opening">
          Opening
        </Button>
      )}
      <Button variant="default" onClick={() => onNewBag?.()} disabled={onNewBag === null}>
        New bag
      </Button>
      <Select
        aria-label="Group"
        className={classes.group}
        value={group.id}
        allowDeselect={false}
        data={groups.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(id) => id && void navigate(`/bench/${grinder.id}/${id}${check ? '?check=1' : ''}`)}
      />
    </div>
  );
}
