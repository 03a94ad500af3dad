import { Button, Text, Title } from '@mantine/core';
import type { Grinder, GrinderSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { grindTimeForS, verifyDoses } from '@tempera/core/calibration';
import { useState } from 'react';
import { sentenceOf } from '../shell/api.ts';
import { useKeepSheet } from '../shell/sheets.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { grams, seconds } from '../ui/format.ts';
import { Readings } from '../ui/Readings.tsx';
import classes from './Pieces.module.css';

/** As many doses as a mean and its spread want. */
const ENOUGH = 3;

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
  const { doseG, doseToleranceG } = grinder.recipe;
  const verdict = doses.length === 0 ? null : verifyDoses(doses, { doseG, toleranceG: doseToleranceG });
  const better = grindTimeForS(
    doses.map((weighedG) => ({ grindTimeS: timeS, doseG: weighedG, x: 0 })),
    doseG,
    0,
  );
  const set = async (): Promise<void> => {
    if (better === null) return;
    try {
      await keep(sheet.id, { basedOn: sheet.revision, retired: false, sheet: { ...sheet.sheet, doseDoubleS: better } });
      setFailure(null);
    } catch (error) {
      setFailure(error);
    }
  };
  const scatters = verdict !== null && verdict.sdG > doseToleranceG;
  const wants = verdict !== null && doses.length >= ENOUGH && !verdict.holds && !scatters && better !== timeS;
  return (
    <section className={`sheet ${classes.check}`} aria-label="Check the dose time">
      <Title order={2} size="h3">
        Check the dose time
      </Title>
      <Text>
        Set for <strong>{seconds(timeS)}</strong>. Grind {ENOUGH} doubles by it, and weigh each.
      </Text>
      <Readings label="Dose" quantity="doseG" near={doseG} values={doses} onValues={setDoses} />
      {verdict && (
        <div className={classes.band}>
          <BandRow
            name="Mean"
            unit="g"
            value={verdict.meanG}
            window={{ low: doseG - doseToleranceG, high: doseG + doseToleranceG }}
            doubt={{ low: verdict.meanG - verdict.sdG, high: verdict.meanG + verdict.sdG }}
          />
        </div>
      )}
      {verdict && (
        <Text aria-live="polite" fw={600}>
          {doses.length < ENOUGH
            ? `${ENOUGH - doses.length} more, then it can be judged.`
            : verdict.holds
              ? `It holds: ${grams(verdict.meanG)}, give or take ${grams(verdict.sdG)}.`
              : scatters
                ? `The doses scatter by ${grams(verdict.sdG)}: look at the hopper and the chute before the time.`
                : `Set ${better === null ? '' : seconds(better)} for ${grams(doseG)}, and check again.`}
        </Text>
      )}
      {failure !== null && (
        <Text role="alert" c="var(--out)">
          {sentenceOf(failure)}
        </Text>
      )}
      {mayChange && wants && better !== null && (
        <Button size="lg" className={classes.alone} onClick={() => void set()}>
          It is set to {seconds(better)}
        </Button>
      )}
    </section>
  );
}
