import { CloseButton } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import type { Danger } from '@tempera/core/opening';
import { Caution } from '../ui/Notice.tsx';
import classes from './Opening.module.css';
import { cautionOf } from './words.ts';

/** The usual caution at a step, one line each; whoever knows it puts it away for themselves. */
export function Cautions({ dangers, personId }: { dangers: readonly Danger[]; personId: string }) {
  const [away, setAway] = useLocalStorage<Danger[]>({ key: `tempera.cautions.${personId}`, defaultValue: [] });
  const shown = dangers.filter((danger) => !away.includes(danger));
  return shown.map((danger) => (
    <div key={danger} className={classes.caution}>
      <Caution>{cautionOf[danger]}</Caution>
      <CloseButton aria-label="Put this caution away" onClick={() => setAway([...away, danger])} />
    </div>
  ));
}
