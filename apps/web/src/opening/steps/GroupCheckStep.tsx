import { Button, Group, Stack, Text } from '@mantine/core';
import { windowMiddleS } from '@tempera/core/calibration';
import { mendings } from '@tempera/core/journal';
import { crossShots, diagnoseBar, type CheckedBar } from '@tempera/core/opening';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { inBar } from '../../calibration/index.ts';
import { BandRow } from '../../ui/BandRow.tsx';
import { percent } from '../../ui/format.ts';
import type { MorningView } from '../useMorning.ts';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

const mendWord: Record<(typeof mendings)[number], string> = {
  screen: 'Screen taken off and cleaned',
  gasket: 'Gasket changed',
  programme: 'Programme put right',
  temperature: 'Temperature put right',
};
/** Eight of ten lie within this many sd. */
const EIGHT_OF_TEN = 1.28;

/** What the shots through all groups say of them. */
export function useCrossCheck(view: MorningView) {
  return useMemo(() => {
    const bar: CheckedBar = {
      recipes: Object.fromEntries(view.bar.grinders.map((grinder) => [grinder.id, inBar(grinder).recipe])),
      groups: view.bar.machines.flatMap((machine) => machine.groups.map(({ id }) => id)),
    };
    const shots = crossShots(bar, view.facts, view.steps, view.morning.fromMs);
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
  const { finding } = diagnosis;
  const effect = diagnosis.groups.find(({ id }) => id === groupId);
  const settled = own.length > 0 && finding.kind !== 'unsure';
  const next = own.length === 0 ? { grinder: grinderId, group: groupId } : diagnosis.next;
  const reach = view.bar.grinders
    .filter(({ id }) => id === grinderId)
    .map(({ recipe }) => (recipe.timeMaxS - recipe.timeMinS) / 2)[0];
  const note = (): void => {
    if (effect)
      write({
        step: 'groupChecked',
        groupId,
        offS: effect.offS,
        sdS: effect.sdS,
        finding: finding.kind,
        foundId: finding.id,
        chance: finding.chance,
      });
  };
  const isOff = finding.kind === 'group' && finding.id === groupId;
  return (
    <Stack>
      {effect && own.length > 0 && (
        <BandRow
          name={name}
          unit="s"
          value={effect.offS}
          shown={`${effect.offS >= 0 ? '+' : '−'}${Math.abs(effect.offS).toFixed(1)} s`}
          window={{ low: -(reach ?? 2), high: reach ?? 2 }}
          doubt={{ low: effect.offS - EIGHT_OF_TEN * effect.sdS, high: effect.offS + EIGHT_OF_TEN * effect.sdS }}
        />
      )}
      <Text size="lg" aria-live="polite">
        {own.length === 0
          ? `Pull ${view.nameOf(grinderId)} through ${name}, where its setting holds.`
          : settled
            ? foundWord(finding, groupId, view.nameOf)
            : `Not settled yet after ${own.length} ${own.length === 1 ? 'shot' : 'shots'}: the pair below tells most for its coffee.`}
      </Text>
      {settled && isOff && (
        <Warn>
          {name} runs {effect && effect.offS > 0 ? 'slow' : 'fast'} on every grinder: take its screen off and clean it,
          look at gasket, programme and temperature. If it stays, call a licensed technician.
        </Warn>
      )}
      {settled && finding.kind === 'grinder' && (
        <Warn>{view.nameOf(finding.id)} has moved since it was locked: set it again on its bench.</Warn>
      )}
      <Group>
        {!settled && next && (
          <Button size="xl" component={Link} to={`/bench/${next.grinder}/${next.group}?check=1`}>
            Pull {view.nameOf(next.grinder)} through {view.nameOf(next.group)}
          </Button>
        )}
        {settled && !isOff && finding.kind !== 'grinder' && (
          <Button size="xl" onClick={note}>
            {name} is noted
          </Button>
        )}
        {settled && finding.kind === 'grinder' && (
          <Button size="xl" component={Link} to={`/bench/${finding.id}`} onClick={note}>
            To its bench
          </Button>
        )}
        {settled &&
          isOff &&
          mendings.map((what) => (
            <Button
              key={what}
              size="lg"
              variant={what === 'screen' ? 'filled' : 'default'}
              onClick={() => {
                note();
                write({ step: 'mended', groupId, what });
              }}
            >
              {mendWord[what]}
            </Button>
          ))}
      </Group>
      <ShotsSoFar shots={own} view={view} />
    </Stack>
  );
}

function foundWord(
  { kind, id, chance }: { kind: 'grinder' | 'group' | 'none' | 'unsure'; id: string | null; chance: number },
  groupId: string,
  nameOf: (id: string | null) => string,
): string {
  const sure = `, ${percent(chance)} sure`;
  if (kind === 'group' && id !== groupId)
    return `${nameOf(groupId)} runs with the others; ${nameOf(id)} is off${sure}.`;
  if (kind === 'group') return `${nameOf(id)} is off${sure}: its screen is the first to suspect.`;
  if (kind === 'grinder') return `${nameOf(id)}, the grinder, is off${sure}.`;
  return `Nothing is off${sure}.`;
}

function ShotsSoFar({ shots, view }: { shots: ReturnType<typeof useCrossCheck>['shots']; view: MorningView }) {
  if (shots.length === 0) return null;
  return (
    <Text className="faint">
      {shots
        .map(({ grinder, timeS }) => {
          const of = view.bar.grinders.find(({ id }) => id === grinder);
          const middle = of ? windowMiddleS(inBar(of).recipe.timeS) : null;
          return `${view.nameOf(grinder)} ${timeS.toFixed(1)} s${middle === null ? '' : ` (aim ${middle.toFixed(1)})`}`;
        })
        .join(', ')}
    </Text>
  );
}
