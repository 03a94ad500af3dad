import { MINUTES_PER_HOUR, MS_PER_MINUTE } from '@tempera/core/numbers';
import { Button, Checkbox, Group, Stack, TextInput, Title } from '@mantine/core';
import type { Person, Session } from '@tempera/contract/team';
import { addDays, businessDay, momentOf } from '@tempera/core/house';
import type { StepOf } from '@tempera/core/facts';
import { useState } from 'react';
import { useSheets } from '../kernel/sheets.ts';
import { clock, clockOf } from '../kernel/format.ts';
import classes from './Opening.module.css';

const USUAL_OPENS_MIN = 450;

const minutesOf = (text: string): number | null => {
  const [hours, minutes] = text.split(':').map(Number);
  return hours === undefined || minutes === undefined || Number.isNaN(hours + minutes)
    ? null
    : hours * MINUTES_PER_HOUR + minutes;
};

/** The next moment at which the café's clock shows this, from a little before now on. */
function nextMoment(minutes: number, site: Session['site'], nowMs: number): number {
  const today = businessDay(nowMs, site.timeZone, 0);
  const at = momentOf(today, minutes, site.timeZone);
  const GRACE_MS = 2 * MINUTES_PER_HOUR * MS_PER_MINUTE;
  return at < nowMs - GRACE_MS ? momentOf(addDays(today, 1), minutes, site.timeZone) : at;
}

interface Props {
  session: Session;
  people: readonly Person[];
  nowMs: number;
  /** What is planned already; null begins the opening. */
  planned: StepOf<'planned'> | null;
  onPlan: (body: StepOf<'planned'>) => void;
}

/** When the bar opens, who is in from when, and whether it was detergent last night. */
export function PlanMorning({ session, people, nowMs, planned, onPlan }: Props) {
  const { site } = session;
  const { data: cafes } = useSheets('cafe');
  const usual = clockOf(cafes?.[0]?.sheet.opensMin ?? USUAL_OPENS_MIN);
  const [opens, setOpens] = useState(planned ? clock(Date.parse(planned.opensAt), site.timeZone) : null);
  const [detergent, setDetergent] = useState(planned?.detergent ?? false);
  const [crew, setCrew] = useState<Record<string, string>>(() =>
    planned
      ? Object.fromEntries(
          planned.people.map(({ personId, from }) => [personId, clock(Date.parse(from), site.timeZone)]),
        )
      : { [session.person.id]: clock(nowMs, site.timeZone) },
  );
  const opensMin = minutesOf(opens ?? usual);
  const inNow = Object.keys(crew).length;
  const plan = (): void => {
    if (opensMin === null) return;
    const opensAtMs = nextMoment(opensMin, site, nowMs);
    const was = (personId: string) => planned?.people.find((person) => person.personId === personId);
    onPlan({
      step: 'planned',
      opensAt: new Date(opensAtMs).toISOString(),
      from: planned?.from ?? new Date(nowMs).toISOString(),
      detergent,
      people: Object.entries(crew).map(([personId, from]) => {
        const before = was(personId);
        if (before && clock(Date.parse(before.from), site.timeZone) === from) return before;
        const minutes = minutesOf(from);
        const atMs = minutes === null ? nowMs : nextMoment(minutes, site, nowMs);
        return { personId, from: new Date(atMs).toISOString() };
      }),
    });
  };
  return (
    <Stack className={`sheet ${classes.planMorning}`}>
      <Title order={2}>{planned ? 'Change the morning' : 'Plan the opening'}</Title>
      <TextInput
        type="time"
        size="lg"
        label="The bar opens at"
        className={classes.taster}
        value={opens ?? usual}
        onChange={(event) => setOpens(event.currentTarget.value)}
      />
      <Crew people={people} crew={crew} onCrew={setCrew} now={clock(nowMs, site.timeZone)} />
      <Checkbox
        size="lg"
        label="The groups were cleaned with detergent: rinse twice, throw the first shot away"
        checked={detergent}
        onChange={(event) => setDetergent(event.currentTarget.checked)}
      />
      <Button size="xl" onClick={plan} disabled={opensMin === null || inNow === 0}>
        {planned ? 'Plan it anew' : 'Begin the opening'}
      </Button>
    </Stack>
  );
}

interface CrewProps {
  people: readonly Person[];
  /** From when each who is in is in, as the café's clock shows it. */
  crew: Record<string, string>;
  onCrew: (crew: Record<string, string>) => void;
  now: string;
}

/** Who works at the bar this morning. */
function Crew({ people, crew, onCrew, now }: CrewProps) {
  return (
    <fieldset className={classes.crew}>
      <legend>Who is in, and from when</legend>
      {people
        .filter(({ role }) => role !== 'office')
        .map(({ id, name, role }) => (
          <Group key={id} wrap="nowrap">
            <Checkbox
              size="lg"
              label={`${name}${role === 'trainee' ? ', in training' : ''}`}
              checked={id in crew}
              onChange={(event) => {
                const { [id]: _, ...rest } = crew;
                onCrew(event.currentTarget.checked ? { ...crew, [id]: now } : rest);
              }}
            />
            {id in crew && (
              <TextInput
                type="time"
                size="md"
                aria-label={`${name} is in from`}
                value={crew[id] ?? ''}
                onChange={(event) => onCrew({ ...crew, [id]: event.currentTarget.value })}
              />
            )}
          </Group>
        ))}
    </fieldset>
  );
}
