import { Button, Group, Stack, Text } from '@mantine/core';
import { windowMiddleS, type Finding } from '@tempera/core/calibration';
import { mendings } from '@tempera/core/facts';
import { crossShots, diagnoseBar, groupVerdict, type CheckedBar, type GroupVerdict } from '@tempera/core/opening';
import { targetOf } from '@tempera/contract/station';
import { Z_80 } from '@tempera/core/numbers';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { BandRow } from '../../ui/BandRow.tsx';
import { percent } from '../../kernel/format.ts';
import type { MorningView } from '../useMorning.ts';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

const mendWord: Record<(typeof mendings)[number], string> = {
  screen: 'Screen taken off and cleaned',
  gasket: 'Gasket changed',
  programme: 'Programme put right',
  temperature: 'Temperature put right',
};
const USUAL_REACH_S = 2.5;

/** What the shots through all groups say of them. */
export function useCrossCheck(view: MorningView) {
  return useMemo(() => {
    const bar: CheckedBar = {
      recipes: Object.fromEntries(view.bar.grinders.map((grinder) => [grinder.id, targetOf(grinder.recipe)])),
      groups: view.bar.machines.flatMap((machine) => machine.groups.map(({ id }) => id)),
    };
    const shots = crossShots(bar, view.facts, view.morning.fromMs);
    return { shots, diagnosis: diagnoseBar(bar, shots) };
  }, [view]);
}

/** Grinder or group: pairs that tell most, what is off, and what to do about it. */
export function GroupCheckStep({ state, view, write }: StepProps) {
  const { shots, diagnosis } = useCrossCheck(view);
  const groupId = state.job.stationId ?? '';
  const grinderId = state.job.withId ?? '';
  const name = view.nameOf(groupId);
  const own = shots.filter(({ group }) => group === groupId);
  const grinders = new Set(own.map(({ grinder }) => grinder)).size;
  const effect = diagnosis.groups.find(({ id }) => id === groupId);
  const reach = view.bar.grinders
    .filter(({ id }) => id === grinderId)
    .map(({ recipe }) => (recipe.timeMaxS - recipe.timeMinS) / 2)[0];
  const verdict = groupVerdict(diagnosis, groupId, own.length, reach ?? USUAL_REACH_S);
  const next =
    own.length === 0 ? { grinder: grinderId, group: groupId } : pairThatTells(diagnosis.next, groupId, grinderId);
  const note = (): void => {
    if (effect)
      write({
        step: 'groupChecked',
        groupId,
        offS: effect.offS,
        sdS: effect.sdS,
        finding: findingOf[verdict.kind],
        foundId: verdict.kind === 'off' ? groupId : verdict.grinderId,
        chance: verdict.chance,
      });
  };
  return (
    <Stack>
      {effect && own.length > 0 && (
        <BandRow
          name={name}
          unit="s"
          value={effect.offS}
          shown={`${effect.offS >= 0 ? '+' : '−'}${Math.abs(effect.offS).toFixed(1)} s`}
          window={{ low: -(reach ?? USUAL_REACH_S), high: reach ?? USUAL_REACH_S }}
          doubt={{ low: effect.offS - Z_80 * effect.sdS, high: effect.offS + Z_80 * effect.sdS }}
        />
      )}
      <Text size="lg" aria-live="polite">
        {own.length === 0
          ? `Pull ${view.nameOf(grinderId)} through ${name}, where its setting holds.`
          : verdict.kind === 'unsure'
            ? `Not settled yet after ${own.length} ${own.length === 1 ? 'shot' : 'shots'}: the pair below tells most for its coffee.`
            : verdictWord(verdict, groupId, diagnosis.finding, view.nameOf)}
      </Text>
      {verdict.kind === 'off' && (
        <Warn>
          {name} runs {effect && effect.offS > 0 ? 'slow' : 'fast'}
          {grinders > 1 ? ' on every grinder' : ''}: take its screen off and clean it, look at gasket, programme and
          temperature. If it stays, call a licensed technician.
        </Warn>
      )}
      {verdict.kind === 'grinder' && (
        <Warn>{view.nameOf(verdict.grinderId)} has moved since it was locked: set it again on its bench.</Warn>
      )}
      <Group>
        <NextHands
          verdict={verdict}
          name={name}
          next={next}
          view={view}
          note={note}
          onMended={(what) => write({ step: 'mended', groupId, what })}
        />
      </Group>
      <ShotsSoFar shots={own} view={view} />
    </Stack>
  );
}

interface NextHandsProps {
  verdict: GroupVerdict;
  name: string;
  next: Pair;
  view: MorningView;
  note: () => void;
  onMended: (what: (typeof mendings)[number]) => void;
}

/** What to do about the verdict: pull the pair that tells most, note it, go to the grinder, or mend. */
function NextHands({ verdict, name, next, view, note, onMended }: NextHandsProps) {
  return (
    <>
      {verdict.kind === 'unsure' && (
        <Button size="xl" component={Link} to={`/bench/${next.grinder}/${next.group}?check=1`}>
          Pull {view.nameOf(next.grinder)} through {view.nameOf(next.group)}
        </Button>
      )}
      {verdict.kind === 'fits' && (
        <Button size="xl" onClick={note}>
          {name} is noted
        </Button>
      )}
      {verdict.kind === 'grinder' && (
        <Button size="xl" component={Link} to={`/bench/${verdict.grinderId}`} onClick={note}>
          To its bench
        </Button>
      )}
      {verdict.kind === 'off' &&
        mendings.map((what) => (
          <Button
            key={what}
            size="lg"
            variant={what === 'screen' ? 'filled' : 'default'}
            onClick={() => {
              note();
              onMended(what);
            }}
          >
            {mendWord[what]}
          </Button>
        ))}
    </>
  );
}

const findingOf = { fits: 'none', off: 'group', grinder: 'grinder', unsure: 'unsure' } as const;

/** The pair that tells most of all; where nothing is told apart any more, this group once again. */
function pairThatTells(next: Pair | null, groupId: string, grinderId: string): Pair {
  return next?.group === groupId ? next : { grinder: next?.grinder ?? grinderId, group: groupId };
}
interface Pair {
  grinder: string;
  group: string;
}

function verdictWord(
  { kind, grinderId, chance }: GroupVerdict,
  groupId: string,
  finding: Finding,
  nameOf: (id: string | null) => string,
): string {
  const sure = `, ${percent(chance)} sure`;
  if (kind === 'off') return `${nameOf(groupId)} is off${sure}: its screen is the first to suspect.`;
  if (kind === 'grinder') return `${nameOf(grinderId)}, the grinder, is off${sure}.`;
  const other = finding.kind === 'group' && finding.id !== groupId ? ` ${nameOf(finding.id)} does not: see there.` : '';
  return `${nameOf(groupId)} runs with the others${sure}.${other}`;
}

function ShotsSoFar({ shots, view }: { shots: ReturnType<typeof useCrossCheck>['shots']; view: MorningView }) {
  if (shots.length === 0) return null;
  return (
    <Text className="faint">
      {shots
        .map(({ grinder, timeS }) => {
          const of = view.bar.grinders.find(({ id }) => id === grinder);
          const middle = of ? windowMiddleS(targetOf(of.recipe).timeS) : null;
          return `${view.nameOf(grinder)} ${timeS.toFixed(1)} s${middle === null ? '' : ` (aim ${middle.toFixed(1)})`}`;
        })
        .join(', ')}
    </Text>
  );
}
