import { Group, Stack, Text } from '@mantine/core';
import type { Bar, Grinder } from '@tempera/contract/bar';
import type { Person, Session } from '@tempera/contract/team';
import type { StandingFact, StandingFacts } from '@tempera/core/facts';
import { tasteDecisions } from '@tempera/core/taste';
import { changeDone } from '../journal/index.ts';
import { KeepAim } from './KeepAim.tsx';
import { OwnChange } from './OwnChange.tsx';
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
  const decisions = tasteDecisions(facts, grinder.id, dayFromMs);
  const last = decisions.at(-1);
  // What was decided since the last sheet, and not yet shown by a shot.
  const settled = last && atMs(last[0]) >= Math.max(atMs(today.at(-1)), atMs(lastShot)) ? last : null;
  const nameOf = (personId: string): string => people.find(({ id }) => id === personId)?.name ?? '';
  const changed = decisions.filter((steps) => steps.some(({ body }) => body.change !== null));
  return (
    <Stack>
      {settled ? (
        <Settled grinder={grinder} decision={settled} setting={tasting.setting} groupId={lastShot?.groupId ?? null} />
      ) : (
        table && <TasteVerdictPanel tasting={tasting} grinder={grinder} nameOf={nameOf} />
      )}
      <TasteSheetForm
        key={`${now.length} ${decisions.length}`}
        people={people}
        personId={session.person.id}
        hasEarlier={today.length > 0}
        first={table === null}
        onKeep={(sheet) => write({ step: 'tasted', grinderId: grinder.id, shotId: lastShot?.id ?? null, ...sheet })}
      />
      {!settled && !table && (
        <Group>
          <Text className="faint">Without a sheet:</Text>
          <OwnChange tasting={tasting} grinder={grinder} />
        </Group>
      )}
      {changed.map((steps) => (
        <Group key={steps[0]?.id}>
          <Text>
            Changed for taste today:{' '}
            {steps.flatMap(({ body: { change } }) => (change ? changeDone(change) : [])).join(', ')}
          </Text>
          <TakeBack stepIds={steps.map(({ id }) => id)} />
        </Group>
      ))}
      <KeepAim grinder={grinder} facts={facts} session={session} dayFromMs={dayFromMs} />
    </Stack>
  );
}

const atMs = (fact: StandingFact | null | undefined): number => (fact ? Date.parse(fact.at) : -Infinity);
