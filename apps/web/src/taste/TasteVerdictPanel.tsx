import { Button, Group, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { extractionPct, leverAxes, tasteAimOf, type LeverEffects, type TasteChange } from '@tempera/core/taste';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { seconds } from '../kernel/format.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { OwnChange } from './OwnChange.tsx';
import classes from './Taste.module.css';
import { changesSay, faultsWord, leverAxisWord, leverUpWord } from './tasteWords.ts';
import type { Tasting } from './useTasting.ts';

/** Tasters further apart than this did not taste the same thing. */
const FAR_APART = 3;

interface TasteVerdictProps {
  tasting: Tasting;
  grinder: Grinder;
  nameOf: (personId: string) => string;
}

/** What the tasters say together, the one change that the house's school makes of it, and what else would help. */
export function TasteVerdictPanel({ tasting, grinder, nameOf }: TasteVerdictProps) {
  const { table, verdict, now, settle, lastShot } = tasting;
  const panel = useRef<HTMLElement>(null);
  // The sheet is long on a phone, and its answer stands above it.
  useEffect(() => {
    // Newer browsers answer with a promise, which is no clean-up.
    panel.current?.scrollIntoView({ block: 'nearest' });
  }, [now.length]);
  if (!table || !verdict) return null;
  const { recipe } = grinder;
  const { sourBitter, weakStrong } = recipe.taste ?? tasteAimOf(grinder);
  const bands = [
    { axis: 'acidity', name: 'Acidity', window: { low: 0, high: 10 - sourBitter.low } },
    { axis: 'bitterness', name: 'Bitterness', window: { low: 0, high: sourBitter.high } },
    { axis: 'strength', name: 'Strength', window: weakStrong },
  ] as const;
  const measured = now.findLast(({ body }) => body.tdsPct !== null)?.body.tdsPct ?? null;
  const says = (...changes: TasteChange[]): string => changesSay(grinder, changes, tasting);
  const { change, alternatives, atOnce, faults } = verdict;
  const numbersFirst = faults.length > 0 && tasting.outS !== 0;
  return (
    <section ref={panel} aria-label="What the tasters say" className={classes.said}>
      <Text className="faint">
        {table.tasters === 1 ? 'One taster so far' : `${table.tasters} tasters, in the mean`}
        {table.apart >= FAR_APART && `; they lie ${Math.round(table.apart)} apart: taste the same cup again`}
      </Text>
      {bands.map(({ axis, ...band }) => (
        <BandRow key={axis} {...band} unit="" missing="not said" value={table.mean[axis]} />
      ))}
      {measured !== null && (
        <Text>
          {measured} % TDS: an extraction of{' '}
          <span className="number">{extractionPct(measured, recipe.yieldG, recipe.doseG).toFixed(1)} %</span>
        </Text>
      )}
      <Text fw={600} size="lg" aria-live="polite">
        {faults.length > 0 ? `It is ${faultsWord(faults)}.` : asItShould(tasting)}
        {numbersFirst
          ? ` But it ran ${seconds(Math.abs(tasting.outS))} too ${tasting.outS < 0 ? 'fast' : 'slow'}: bring it into its window first, then taste.`
          : change && ` One change: ${says(change)}.`}
        {atOnce && ' Distribute with care and pull it again; or change two things at once.'}
      </Text>
      <Group className={classes.levers}>
        {numbersFirst && (
          <Button component={Link} to={`/bench/${grinder.id}/${lastShot?.groupId ?? ''}`} size="xl">
            To the bench
          </Button>
        )}
        {change && (
          <Button size="xl" variant={numbersFirst ? 'default' : 'filled'} onClick={() => settle([change])}>
            {says(change)}
          </Button>
        )}
        {atOnce && (
          <Button size="xl" variant="default" onClick={() => settle(atOnce)}>
            {says(...atOnce)}
          </Button>
        )}
        <Button size="xl" variant={faults.length > 0 ? 'default' : 'filled'} onClick={() => settle([])}>
          It stays as it is
        </Button>
      </Group>
      <Group aria-label="Other levers" role="group" className={classes.levers}>
        <Text className="faint">Or:</Text>
        {alternatives.map((other) => (
          <Button key={other.lever} size="md" variant="default" onClick={() => settle([other])}>
            {says(other)}
          </Button>
        ))}
        <OwnChange tasting={tasting} grinder={grinder} />
      </Group>
      <OwnCups tasting={tasting} nameOf={nameOf} />
    </section>
  );
}

/** Nothing to change is a word of the tongue, and not of an axis that nobody touched. */
function asItShould({ table, now }: Tasting): string {
  const { acidity, bitterness, strength } = table?.mean ?? {};
  if (acidity === null && bitterness === null && strength === null) {
    const than = now.at(-1)?.body.than;
    return than
      ? `It is ${than === 'same' ? 'the same as' : `${than} than`} the last.`
      : 'Nobody said whether it is sour, bitter or weak.';
  }
  return 'It tastes as it should.';
}

const point = (value: number): string => `${value >= 0 ? '+' : '−'}${Math.abs(value).toFixed(1)}`;

/** What each lever does by this house's own cups, and how its tasters differ. */
function OwnCups({ tasting: { changes, effects, biases }, nameOf }: Pick<TasteVerdictProps, 'tasting' | 'nameOf'>) {
  const levers = [...new Set(changes.map(({ lever }) => lever))];
  const telling = biases.filter(({ bias, cups }) => cups > 1 && Math.abs(bias) >= 0.5);
  if (levers.length === 0 && telling.length === 0) return null;
  return (
    <details className={classes.own}>
      <summary>What your own cups say</summary>
      <ul>
        {levers.map((lever) => (
          <li key={lever}>
            {leverUpWord[lever]()} ({changes.filter((one) => one.lever === lever).length} tasted):{' '}
            {effectsWord(effects[lever])}
          </li>
        ))}
        {telling.map(({ tasterId, axis, bias, cups }) => (
          <li key={`${tasterId} ${axis}`}>
            {nameOf(tasterId)} says {point(bias)} on {axis} against the others, over {cups} cups; it is taken off.
          </li>
        ))}
      </ul>
    </details>
  );
}

const effectsWord = (effect: LeverEffects['yield']): string =>
  leverAxes
    .map((axis) => `${leverAxisWord[axis]} ${point(effect[axis].mean)} give or take ${effect[axis].sd.toFixed(1)}`)
    .join(', ');
