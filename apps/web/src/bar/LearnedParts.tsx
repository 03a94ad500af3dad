import { Text } from '@mantine/core';
import { Link } from 'react-router';
import { BandRow } from '../ui/BandRow.tsx';
import { seconds } from '../kernel/format.ts';
import classes from './Pieces.module.css';
import { useBar, useLearned } from './queries.ts';
import { Slot } from '../kernel/slots.tsx';
import { useSheets } from '../kernel/sheets.ts';

/** A person's doubt: two sd hold nineteen times in twenty. */
const SDS = 2;
/** Handbook: one mark is commonly worth 2-5 s of a 28 s shot; a house that states a number is held to it, give or take 30 %. */
const USUAL_MARK_S = { low: 2, high: 5 };
const STATED_SHARE = 0.3;

/** What its shots taught about a grinder, against what the house believes; and what it holds. */
export function LearnedGrinder({ grinderId }: { grinderId: string }) {
  const { data: bar } = useBar();
  const { data: learned } = useLearned();
  const { data: sheets } = useSheets('grinder');
  const known = learned?.grinders.find(({ id }) => id === grinderId);
  const grinder = bar?.grinders.find(({ id }) => id === grinderId);
  const stated = sheets?.find(({ id }) => id === grinderId)?.sheet.secondsPerMark ?? null;
  const window =
    stated === null
      ? USUAL_MARK_S
      : { low: round(stated * (1 - STATED_SHARE)), high: round(stated * (1 + STATED_SHARE)) };
  return (
    <section className={`sheet ${classes.learned}`} aria-label="Learned">
      <div>
        <Text>
          {grinder ? (
            <>
              Holds <strong>{grinder.coffee}</strong>, pulled as{' '}
              <Link to={`/house/recipes/${grinder.recipe.recipeId}`}>{grinder.recipe.name}</Link>.
            </>
          ) : (
            'Holds no coffee that can be dialled in.'
          )}
        </Text>
        {known && known.burrKg !== null && <Text>These burrs have ground about {Math.round(known.burrKg)} kg.</Text>}
      </div>
      <Slot of="grinderHolds" told={{ grinderId }} />
      {known && (
        <div className={classes.band}>
          <BandRow
            name="A mark"
            unit="s"
            value={known.secondsPerMark}
            window={window}
            doubt={{ low: known.secondsPerMark - SDS * known.sdS, high: known.secondsPerMark + SDS * known.sdS }}
          />
          <Text className="faint">
            Learned from {known.shots} shots: {seconds(known.secondsPerMark)}, give or take {seconds(SDS * known.sdS)}.
            The band is what {stated === null ? 'is usual' : 'the sheet below says, give or take 30 %'}.
          </Text>
        </div>
      )}
    </section>
  );
}

const round = (value: number): number => Math.round(10 * value) / 10;

/** A second either way is nothing that a guest would taste. */
const FAIR_S = { low: -1, high: 1 };

/** How a group runs beside the others. */
export function LearnedGroup({ groupId }: { groupId: string }) {
  const { data: learned } = useLearned();
  const known = learned?.groups.find(({ id }) => id === groupId);
  return (
    <section className={`sheet ${classes.learned}`} aria-label="Learned">
      {known ? (
        <div className={classes.band}>
          <Text>{runsWord(known)}</Text>
          <BandRow
            name="Runs"
            unit="s"
            value={known.offS}
            window={FAIR_S}
            doubt={{ low: known.offS - SDS * known.sdS, high: known.offS + SDS * known.sdS }}
          />
        </div>
      ) : (
        <Text className="faint">No shot through this group in two months, so nothing is known of how it runs.</Text>
      )}
    </section>
  );
}

/** "Runs 0.8 s slow, sure (41 shots)." */
function runsWord({ offS, sdS, shots }: { offS: number; sdS: number; shots: number }): string {
  const sure = Math.abs(offS) > SDS * sdS ? 'sure' : Math.abs(offS) > sdS ? 'likely' : 'not sure';
  const way = Math.abs(offS) < 0.05 ? 'like the others' : `${seconds(Math.abs(offS))} ${offS > 0 ? 'slow' : 'fast'}`;
  return `Runs ${way}, ${sure} (${shots} shots).`;
}
