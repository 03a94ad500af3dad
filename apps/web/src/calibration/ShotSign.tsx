import { Button } from '@mantine/core';
import type { Flaw, ShotBody } from '@tempera/core/facts';
import { useMemo } from 'react';
import { flawWord } from '../journal/index.ts';
import classes from './Slip.module.css';
import { traceSign } from './traceSign.ts';

/** What the trace of a sound shot shows, before anybody acts on its numbers; and the flaw to mark it with. */
export function ShotSign({ shot, onFlaw }: { shot: ShotBody; onFlaw: (flaw: Flaw) => void }) {
  const sign = useMemo(() => (shot.flaw === null ? traceSign(shot) : null), [shot]);
  if (!sign) return null;
  const { says, flaw } = sign;
  return (
    <div className={classes.sign} role="status">
      <span>{says}</span>
      {flaw !== null && (
        <Button variant="default" onClick={() => onFlaw(flaw)}>
          Mark it: {flawWord[flaw].toLowerCase()}
        </Button>
      )}
    </div>
  );
}
