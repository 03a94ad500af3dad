import { Button, Group, Select, Stack, Text } from '@mantine/core';
import { stepsOf } from '@tempera/core/facts';
import { businessDay, nextOpening, openerOf } from '@tempera/core/house';
import { useMemo, useState } from 'react';
import { FreezerTonight, useDayAhead } from '../../coffee/index.ts';
import { useCalendar } from '../../kernel/calendar.ts';
import { clock, dayWord, kilograms } from '../../kernel/format.ts';
import { Loading } from '../../ui/Notice.tsx';
import classes from '../Opening.module.css';
import type { MorningView } from '../useMorning.ts';
import type { StepProps } from './stepProps.ts';

/** Grams of the tubs that this closing has weighed, by grinder. */
function useTubs({ facts, morning }: MorningView): ReadonlyMap<string, number> {
  return useMemo(
    () =>
      new Map(
        stepsOf(facts, 'hopperEmptied').flatMap(({ at, body: { grinderId, tubG } }) =>
          tubG !== null && Date.parse(at) >= morning.fromMs ? [[grinderId, tubG] as const] : [],
        ),
      ),
    [facts, morning.fromMs],
  );
}

/** Who opens and when, what each hopper begins with, and what must leave the freezer tonight. */
export function TomorrowStep({ view, session, write }: StepProps) {
  const calendar = useCalendar();
  const tubs = useTubs(view);
  const { timeZone } = session.site;
  const ahead = useDayAhead(view.bar, tubs, timeZone, view.nowMs);
  const [chosen, setChosen] = useState<string | null>(null);
  if (!calendar || !ahead) return <Loading what="the next day" />;
  const next = nextOpening(calendar, view.nowMs);
  const opensById = chosen ?? (next && openerOf(calendar, next.day));
  const hands = view.people.filter(({ role }) => role === 'head' || role === 'barista');
  return (
    <Stack>
      <Text size="lg">
        {next
          ? `The bar opens ${dayWord(businessDay(next.opensMs, timeZone, 0))} at ${clock(next.opensMs, timeZone)}.`
          : 'By its calendar the bar does not open in the next two months.'}
      </Text>
      {next && (
        <Select
          label="Who opens"
          size="lg"
          className={classes.taster}
          value={opensById ?? ''}
          allowDeselect={false}
          data={[{ value: '', label: 'not said' }, ...hands.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={(id) => setChosen(id ?? '')}
        />
      )}
      <div>
        <Text fw={600}>Each hopper begins with</Text>
        <ul className={classes.ahead}>
          {ahead.hoppers.map(({ grinderId, name, leftG, bag }) => (
            <li key={grinderId}>
              {name}: {beginsWith(leftG, bag?.bag.kept.sheet.roastedOn ?? null)}
            </li>
          ))}
        </ul>
      </div>
      <FreezerTonight session={session} ahead={ahead} />
      <Group>
        <Button
          size="xl"
          onClick={() =>
            write({
              step: 'tomorrow',
              opensAt: next ? new Date(next.opensMs).toISOString() : null,
              opensById: opensById === '' ? null : opensById,
              bags: ahead.hoppers.flatMap(({ grinderId, bag }) => (bag ? [{ grinderId, bagId: bag.id }] : [])),
              thawed: stepsOf(view.facts, 'thawed').flatMap(({ at, body }) =>
                Date.parse(at) >= view.morning.fromMs ? [body.bagId] : [],
              ),
            })
          }
        >
          The next day is set
        </Button>
      </Group>
    </Stack>
  );
}

function beginsWith(leftG: number, roastedOn: string | null): string {
  const tub = leftG > 0 ? `its tub, about ${kilograms(leftG)}` : null;
  if (roastedOn === null) return tub ?? 'no bag is on the shelf';
  const bag = `the bag roasted ${dayWord(roastedOn)}`;
  return tub ? `${bag}, after ${tub}` : bag;
}
