import { Button, Modal, Stack, Text, TextInput } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import type { Bag, Stock } from '@tempera/contract/coffee';
import { bagShift, windowMiddleS } from '@tempera/core/calibration';
import type { RankedBag } from '@tempera/core/coffee';
import { pumpWindowS } from '@tempera/core/house';
import type { FactBodies } from '@tempera/core/facts';
import { useState } from 'react';
import { dayWord, kilograms, seconds } from '../kernel/format.ts';
import { useNow } from '../ui/useNow.ts';
import { freshWord, freshnessIn, nextBags, type KnownBag } from './fresh.ts';
import classes from './NewBag.module.css';
import { useStock } from './queries.ts';

export interface NewBagProps {
  grinder: { id: string; name: string; coffeeId: string | null; recipe: Grinder['recipe'] | null };
  timeZone: string;
  onClose: () => void;
  onSave: (body: FactBodies['newBag']) => void;
}

/** Another bag in the hopper: tap it, and it is in. The one to take first stands on top. */
export function NewBag({ grinder, timeZone, onClose, onSave }: NewBagProps) {
  const { data: stock } = useStock();
  const nowMs = useNow();
  const [other, setOther] = useState(grinder.coffeeId === null);
  const [roastedOn, setRoastedOn] = useState('');
  const coffees = (stock?.coffees ?? []).filter(({ retired, id }) => !retired && (other || id === grinder.coffeeId));
  const put = (bag: Bag): void =>
    onSave({
      roastedOn: bag.sheet.roastedOn,
      bagId: bag.id,
      coffeeId: bag.sheet.coffeeId,
      ...(grinder.coffeeId !== null && bag.sheet.coffeeId !== grinder.coffeeId ? { otherCoffee: true } : {}),
    });
  const listed = alike(coffees.flatMap(({ id }) => (stock ? nextBags(stock, id, timeZone, nowMs) : [])));
  return (
    <Modal opened onClose={onClose} title={`Another bag in ${grinder.name}`} centered size="lg">
      <Stack>
        <Text>A new bag is another bed, of the same coffee too: the next shot is a check.</Text>
        <ul className={classes.bags}>
          {listed.map(({ bag, freshness, count }, i) => (
            <li key={bag.id}>
              <button type="button" className={classes.bag} data-first={i === 0} onClick={() => put(bag.kept)}>
                <span className={classes.coffee}>
                  {bag.kept.coffee}
                  {bag.kept.sheet.label && `, ${bag.kept.sheet.label}`}
                  {count > 1 && <span className={classes.count}> {count} bags alike</span>}
                </span>
                <span>
                  {kilograms(bag.kept.sheet.weightG)}, roasted {dayWord(bag.kept.sheet.roastedOn)}
                </span>
                <span>{freshWord(freshness)}</span>
                {stock && (
                  <span className="faint">
                    {shiftWord(grinder, bag, inHopper(stock, grinder.id), timeZone, nowMs, stock)}
                  </span>
                )}
              </button>
            </li>
          ))}
        </ul>
        {stock && listed.length === 0 && <Text className="faint">No bag of it stands in the list.</Text>}
        {!other && (
          <Button variant="default" onClick={() => setOther(true)}>
            Another coffee
          </Button>
        )}
        {grinder.coffeeId !== null && (
          <details className={classes.unlisted}>
            <summary>A bag of the same coffee that is not in the list</summary>
            <Stack pt="sm">
              <TextInput
                type="date"
                label="Roasted on (if it says so)"
                size="lg"
                value={roastedOn}
                onChange={(event) => setRoastedOn(event.currentTarget.value)}
              />
              <Button size="lg" onClick={() => onSave({ roastedOn: roastedOn === '' ? null : roastedOn })}>
                It is in the hopper
              </Button>
            </Stack>
          </details>
        )}
      </Stack>
    </Modal>
  );
}

/** Bags that nobody can tell apart are shown once, and how many there are. */
function alike(ranked: readonly RankedBag<KnownBag>[]): (RankedBag<KnownBag> & { count: number })[] {
  const groups = new Map<string, RankedBag<KnownBag> & { count: number }>();
  for (const one of ranked) {
    const { sheet, state } = one.bag.kept;
    const key = JSON.stringify([sheet, state, one.bag.openedAtMs]);
    const known = groups.get(key);
    groups.set(key, { ...(known ?? one), count: (known?.count ?? 0) + 1 });
  }
  return [...groups.values()];
}

const inHopper = (stock: Stock, grinderId: string): Bag | null =>
  stock.bags.find((bag) => bag.state === 'hopper' && bag.grinderId === grinderId) ?? null;

/** What the bag will likely do to the shot: "about 0.4 s faster, give or take 4.5 s". */
function shiftWord(
  { coffeeId, recipe }: NewBagProps['grinder'],
  bag: KnownBag,
  before: Bag | null,
  timeZone: string,
  nowMs: number,
  stock: Stock,
): string {
  if (recipe === null || coffeeId === null) return '';
  if (bag.kept.sheet.coffeeId !== coffeeId) return 'Another coffee: the grind is to be found anew.';
  const [now, then] = [
    freshnessIn(stock, bag.kept, timeZone, nowMs),
    before && freshnessIn(stock, before, timeZone, nowMs),
  ];
  const older = now && then ? now.ageDays - then.ageDays : null;
  const { shiftS, sdS } = bagShift(windowMiddleS(pumpWindowS(recipe)), older);
  const way =
    Math.abs(shiftS) < 0.05
      ? 'No shift expected'
      : `About ${seconds(Math.abs(shiftS))} ${shiftS > 0 ? 'slower' : 'faster'}`;
  return `${way}, give or take ${seconds(sdS)}.`;
}
