import { ENOUGH_DOSES, judgeDoses } from '@tempera/core/calibration';
import { Button, Text, Title } from '@mantine/core';
import type { Grinder, GrinderSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { useState } from 'react';
import { sentenceOf } from '../kernel/api.ts';
import { useKeepSheet } from '../kernel/sheets.ts';
import { seconds } from '../kernel/format.ts';
import { Readings } from '../ui/Readings.tsx';
import { DoseVerdict } from './DoseVerdict.tsx';
import classes from '../ui/Check.module.css';

interface Props {
  sheet: Kept<GrinderSheet>;
  grinder: Grinder;
  mayChange: boolean;
}

/** Verifies the grind time of a double: the mean of a few doses against the recipe's, their spread against its tolerance. */
export function DoseCheck({ sheet, grinder, mayChange }: Props) {
  const timeS = sheet.sheet.doseDoubleS;
  if (timeS === null) return null;
  return <Doses key={timeS} timeS={timeS} sheet={sheet} grinder={grinder} mayChange={mayChange} />;
}

function Doses({ timeS, sheet, grinder, mayChange }: Props & { timeS: number }) {
  const [doses, setDoses] = useState<number[]>([]);
  const [failure, setFailure] = useState<unknown>(null);
  const keep = useKeepSheet('grinder');
  const judged = judgeDoses(doses, grinder.recipe, timeS);
  const enough = doses.length >= ENOUGH_DOSES;
  const better = enough && judged ? judged.betterS : null;
  const set = async (): Promise<void> => {
    if (better === null) return;
    try {
      await keep(sheet.id, { basedOn: sheet.revision, retired: false, sheet: { ...sheet.sheet, doseDoubleS: better } });
      setFailure(null);
    } catch (error) {
      setFailure(error);
    }
  };
  return (
    <section className={`sheet ${classes.check}`} aria-label="Check the dose time">
      <Title order={2} size="h3">
        Check the dose time
      </Title>
      <Text>
        Set for <strong>{seconds(timeS)}</strong>. Grind {ENOUGH_DOSES} doubles by it, and weigh each.
      </Text>
      <Readings label="Dose" quantity="doseG" near={grinder.recipe.doseG} values={doses} onValues={setDoses} />
      {judged && (
        <div className={classes.band}>
          <DoseVerdict judged={judged} recipe={grinder.recipe} enough={enough} />
        </div>
      )}
      {failure !== null && (
        <Text role="alert" c="var(--out)">
          {sentenceOf(failure)}
        </Text>
      )}
      {mayChange && better !== null && (
        <Button size="lg" className={classes.alone} onClick={() => void set()}>
          It is set to {seconds(better)}
        </Button>
      )}
    </section>
  );
}
