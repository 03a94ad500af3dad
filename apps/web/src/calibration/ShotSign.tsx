import { Button } from '@mantine/core';
import type { GoodStart } from '@tempera/core/capture';
import type { Flaw, ShotBody } from '@tempera/core/facts';
import { useMemo } from 'react';
import { flawWord } from '../journal/index.ts';
import classes from './Slip.module.css';
import { traceSign } from './traceSign.ts';

interface Props {
  shot: ShotBody;
  /** How the house's good shots on this station begin. */
  good: GoodStart | null;
  onFlaw: (flaw: Flaw) => void;
}

/** What the trace of a sound shot shows, before anybody acts on its numbers; and the flaw to mark it with. */
export function ShotSign({ shot, good, onFlaw }: Props) {
  const sign = useMemo(() => (shot.flaw === null ? traceSign(shot, good) : null), [shot, good]);
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
