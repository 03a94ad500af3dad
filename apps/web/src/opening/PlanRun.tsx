import { MINUTES_PER_HOUR, MS_PER_MINUTE } from '@tempera/core/numbers';
import { Button, Checkbox, Chip, Group, Stack, Text, TextInput, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import { mayAlone } from '@tempera/contract/signOffs';
import type { Person, Session } from '@tempera/contract/team';
import { addDays, businessDay, momentOf, nextOpening, openSpan, type Calendar } from '@tempera/core/house';
import { closedBefore, closedNow } from '@tempera/core/opening';
import { lastLock } from '@tempera/core/calibration';
import {
  ofGrinder,
  ofKind,
  runKinds,
  stepsOf,
  type RunKind,
  type StandingFacts,
  type StepOf,
} from '@tempera/core/facts';
import { useState } from 'react';
import { useCalendar } from '../kernel/calendar.ts';
import { clock, clockOf } from '../kernel/format.ts';
import { OneOf } from '../ui/OneOf.tsx';
import { LeftAtClosing } from './LeftAtClosing.tsx';
import classes from './Opening.module.css';
import { runName } from '../journal/index.ts';
import { usePeople } from '../team/index.ts';
import { notSignedOffWord, runSays, runSkill, runWord } from './words.ts';

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
  grinders: Bar['grinders'];
  facts: StandingFacts;
  nowMs: number;
  nameOf: (id: string | null) => string;
  /** What is planned already; null begins a run. */
  planned: StepOf<'planned'> | null;
  /** The run that the way here named; null: none. */
  wanted: RunKind | null;
  onPlan: (body: StepOf<'planned'>) => void;
}

/** A run over grinders that are hot and fresh takes about so long, and a closing after the last drink. */
const AFTERNOON_MIN = 30;
const CLOSING_MIN = 60;
/** From so long before the doors close the run that is begun is a closing. */
const NEAR_CLOSING_MS = 60 * MS_PER_MINUTE;

/** Which run somebody most likely begins by now. */
function likelyRun(
  facts: StandingFacts,
  nowMs: number,
  closesMs: number | null,
  today: (at: string | undefined) => boolean,
): RunKind {
  if (closedNow(facts, nowMs)) return 'opening';
  const nearTheEnd = closesMs !== null && nowMs > closesMs - NEAR_CLOSING_MS;
  // A bar that served without a signature closes like any other.
  if (nearTheEnd && ofKind(facts, 'lock').some(({ at }) => today(at))) return 'closing';
  return stepsOf(facts, 'signedOff').some(({ at }) => today(at)) ? 'afternoon' : 'opening';
}

/** When a run shall usually be over, as the café's clock shows it. */
function usualHour(
  run: RunKind,
  calendar: Calendar | null,
  closesMs: number | null,
  nowMs: number,
  timeZone: string,
): string {
  const inMinutes = (minutes: number, fromMs = nowMs): string => clock(fromMs + minutes * MS_PER_MINUTE, timeZone);
  if (run === 'closing') return inMinutes(CLOSING_MIN, Math.max(nowMs, closesMs ?? nowMs));
  if (run !== 'opening') return inMinutes(AFTERNOON_MIN);
  const next = calendar && nextOpening(calendar, nowMs - AFTERNOON_MIN * MS_PER_MINUTE);
  return next ? clock(next.opensMs, timeZone) : clockOf(calendar?.opensMin ?? USUAL_OPENS_MIN);
}

/** Which run, when it shall be over, who is in from when, and whether it was detergent last night. */
export function PlanRun({ session, people, grinders, facts, nowMs, nameOf, planned, wanted, onPlan }: Props) {
  const { site } = session;
  const calendar = useCalendar();
  const closed = closedBefore(facts, nowMs);
  const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
  const today = (at: string | undefined): boolean => at !== undefined && dayOf(Date.parse(at)) === dayOf(nowMs);
  const closesMs = calendar ? (openSpan(calendar, dayOf(nowMs))?.closesMs ?? null) : null;
  const [picked, setRun] = useState<RunKind | null>(planned ? (planned.run ?? 'opening') : wanted);
  const run = picked ?? likelyRun(facts, nowMs, closesMs, today);
  const [chosen, setChosen] = useState<string[]>(() => {
    const inUse = grinders.filter(({ id }) => today(lastLock(ofGrinder(facts, id))?.at));
    return planned?.grinderIds ?? (inUse.length > 0 ? inUse : grinders).map(({ id }) => id);
  });
  const usual = usualHour(run, calendar, closesMs, nowMs, site.timeZone);
  const [opens, setOpens] = useState(planned ? clock(Date.parse(planned.opensAt), site.timeZone) : null);
  const [said, setDetergent] = useState(planned?.detergent ?? null);
  const detergent = said ?? (closed?.detergentGroupIds.length ?? 0) > 0;
  const [crew, setCrew] = useState<Record<string, string>>(() =>
    planned
      ? Object.fromEntries(
          planned.people.map(({ personId, from }) => [personId, clock(Date.parse(from), site.timeZone)]),
        )
      : { [session.person.id]: clock(nowMs, site.timeZone) },
  );
  const opensMin = minutesOf(opens ?? usual);
  const wholeBar = run === 'opening' || run === 'closing';
  const grinderIds = wholeBar ? null : run === 'station' ? chosen.slice(0, 1) : chosen;
  const complete = opensMin !== null && Object.keys(crew).length > 0 && grinderIds?.length !== 0;
  const plan = (): void => {
    if (opensMin === null) return;
    const opensAtMs = nextMoment(opensMin, site, nowMs);
    const was = (personId: string) => planned?.people.find((person) => person.personId === personId);
    onPlan({
      step: 'planned',
      ...(grinderIds ? { run, grinderIds } : run === 'closing' ? { run } : {}),
      opensAt: new Date(opensAtMs).toISOString(),
      from: planned?.from ?? new Date(nowMs).toISOString(),
      detergent: run === 'opening' && detergent,
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
      <Title order={2}>{planned ? `Change ${runName[run]}` : 'Begin a run'}</Title>
      {!planned && (
        <OneOf
          large
          label="Which run"
          value={run}
          options={runKinds.map((value) => ({ value, label: runWord[value] }))}
          onChange={(value) => {
            setRun(value);
            setOpens(null);
          }}
        />
      )}
      <Text>{runSays[run]}</Text>
      {run === 'opening' && closed && <LeftAtClosing closed={closed} nameOf={nameOf} />}
      {!wholeBar && <GrinderChips grinders={grinders} one={run === 'station'} chosen={chosen} onChosen={setChosen} />}
      <TextInput
        type="time"
        size="lg"
        label={run === 'opening' ? 'The bar opens at' : 'To be over by'}
        className={classes.taster}
        value={opens ?? usual}
        onChange={(event) => setOpens(event.currentTarget.value)}
      />
      <Crew people={people} crew={crew} onCrew={setCrew} now={clock(nowMs, site.timeZone)} />
      <CrewMayNot people={people} ids={Object.keys(crew)} run={run} day={dayOf(nowMs)} />
      {run === 'opening' && (
        <Checkbox
          size="lg"
          label="The groups were cleaned with detergent: rinse twice, throw the first shot away"
          checked={detergent}
          onChange={(event) => setDetergent(event.currentTarget.checked)}
        />
      )}
      <Button size="xl" onClick={plan} disabled={!complete}>
        {planned ? 'Plan it anew' : `Begin ${runName[run]}`}
      </Button>
    </Stack>
  );
}

interface GrinderChipsProps {
  grinders: Bar['grinders'];
  /** Whether one alone is chosen. */
  one: boolean;
  chosen: readonly string[];
  onChosen: (ids: string[]) => void;
}

/** The grinders that the run is about. */
function GrinderChips({ grinders, one, chosen, onChosen }: GrinderChipsProps) {
  const chips = grinders.map(({ id, name }) => (
    <Chip key={id} value={id} size="lg">
      {name}
    </Chip>
  ));
  const group = (
    <Group gap="xs" role="group" aria-label="Grinders">
      {chips}
    </Group>
  );
  if (one) {
    return (
      <Chip.Group value={chosen[0] ?? ''} onChange={(id) => onChosen([id])}>
        {group}
      </Chip.Group>
    );
  }
  return (
    <Chip.Group multiple value={[...chosen]} onChange={onChosen}>
      {group}
    </Chip.Group>
  );
}

interface CrewMayNotProps {
  people: readonly Person[];
  /** Who is in. */
  ids: readonly string[];
  run: RunKind;
  day: string;
}

/** Said before a run is begun that nobody of the crew may do alone. */
function CrewMayNot({ people, ids, run, day }: CrewMayNotProps) {
  const sheets = usePeople();
  const hands = people.filter(({ id, role }) => ids.includes(id) && (role === 'head' || role === 'barista'));
  const unsigned = hands.filter(({ id }) => !mayAlone(sheets, id, runSkill(run), day));
  if (unsigned.length === 0 || unsigned.length < hands.length) return null;
  return (
    <Text role="note">
      {notSignedOffWord(
        unsigned.map(({ name }) => name),
        runSkill(run),
      )}{' '}
      What wants trained hands waits for somebody who is.
    </Text>
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
