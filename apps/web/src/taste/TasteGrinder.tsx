import { Group, Stack, Text } from '@mantine/core';
import type { Bar, Grinder } from '@tempera/contract/bar';
import type { Person, Session } from '@tempera/contract/team';
import { stepsOf, type StandingFact, type StandingFacts } from '@tempera/core/facts';
import { changeDone } from '../journal/index.ts';
import { KeepAim } from './KeepAim.tsx';
import { Settled } from './Settled.tsx';
import { TakeBack } from './TakeBack.tsx';
import { TasteSheetForm } from './TasteSheetForm.tsx';
import { TasteVerdictPanel } from './TasteVerdictPanel.tsx';
import { useTasting } from './useTasting.ts';

interface TasteGrinderProps {
  bar: Bar;
  grinder: Grinder;
  facts: StandingFacts;
  people: readonly Person[];
  session: Session;
  nowMs: number;
}

/** Tasting what a grinder gives: the sheets, what the house makes of them, and what was changed today. */
export function TasteGrinder({ bar, grinder, facts, people, session, nowMs }: TasteGrinderProps) {
  const dayFromMs = Date.parse(bar.memory.upTo);
  const tasting = useTasting(bar, grinder, facts, dayFromMs, nowMs);
  const { today, now, table, lastShot, write } = tasting;
  const settled = settledLast(facts, grinder.id, Math.max(dayFromMs, atMs(today.at(-1)), atMs(lastShot)));
  const nameOf = (personId: string): string => people.find(({ id }) => id === personId)?.name ?? '';
  const changed = stepsOf(facts, 'tasteSettled').filter(
    ({ at, body }) => body.grinderId === grinder.id && body.change !== null && Date.parse(at) >= dayFromMs,
  );
  return (
    <Stack>
      {settled.length > 0 ? (
        <Settled grinder={grinder} settled={settled} />
      ) : (
        table && <TasteVerdictPanel tasting={tasting} grinder={grinder} nameOf={nameOf} />
      )}
      <TasteSheetForm
        key={`${now.length} ${settled.length}`}
        people={people}
        personId={session.person.id}
        hasEarlier={today.length > 0}
        first={table === null}
        onKeep={(sheet) => write({ step: 'tasted', grinderId: grinder.id, shotId: lastShot?.id ?? null, ...sheet })}
      />
      {changed.map(({ id, body: { change } }) => (
        <Group key={id}>
          <Text>Changed for taste today: {change && changeDone(change)}</Text>
          <TakeBack stepId={id} />
        </Group>
      ))}
      <KeepAim grinder={grinder} facts={facts} session={session} dayFromMs={dayFromMs} />
    </Stack>
  );
}

const atMs = (fact: StandingFact | null | undefined): number => (fact ? Date.parse(fact.at) : -Infinity);

/** What was decided at a grinder since the last sheet, and not yet shown by a shot. */
const settledLast = (facts: StandingFacts, grinderId: string, sinceMs: number) =>
  stepsOf(facts, 'tasteSettled').filter((step) => step.body.grinderId === grinderId && atMs(step) >= sinceMs);
