import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Coffee, CoffeeUse, Stock } from '@tempera/contract/coffee';
import type { Session } from '@tempera/contract/team';
import { runOut } from '@tempera/core/coffee';
import { Link } from 'react-router';
import { roastedBagOf } from '@tempera/contract/bagAge';
import { useBar } from '../bar/index.ts';
import { useCalendar } from '../kernel/calendar.ts';
import { keepsHouse } from '../kernel/sheets.ts';
import { dayWord, kilograms } from '../kernel/format.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { Slot } from '../kernel/slots.tsx';
import { useNow } from '../ui/useNow.ts';
import classes from './Coffee.module.css';
import { CoffeeTabs } from './CoffeeTabs.tsx';
import { FreshBand } from './FreshBand.tsx';
import { freshnessIn, freshWord, nextBags, openWord } from './fresh.ts';
import { HopperButton } from './HopperButton.tsx';
import { useCoffeeUse, useStock } from './queries.ts';

/** Coffees: what is in the hoppers and how fresh, which bag next, how long it lasts. */
export function CoffeePage({ session }: { session: Session }) {
  const { data: stock, error, refetch } = useStock();
  const { data: use, isLoading: usePending } = useCoffeeUse();
  const { data: bar, isLoading: barPending } = useBar();
  // All at once: what comes later would push a button away from under a finger.
  if (stock && (usePending || barPending)) return <Loading what="the coffees" />;
  if (!stock) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the coffees" />;
  // As the bar stands: coffees in the hoppers first, in the order of their grinders.
  const order = bar?.grinders.map(({ coffeeId }) => coffeeId) ?? [];
  const rank = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
  const inUse = stock.coffees
    .filter(({ retired }) => !retired)
    .toSorted((a, b) => rank(a.id) - rank(b.id) || a.sheet.name.localeCompare(b.sheet.name));
  return (
    <Stack gap="md">
      <CoffeeTabs />
      <Group justify="space-between">
        <Title order={1}>Coffee</Title>
        <Group>
          <Button component={Link} to="/coffee/bags/new">
            Take a bag in
          </Button>
          {keepsHouse(session) && (
            <Button component={Link} to="/coffee/coffees/new" variant="default">
              Add a coffee
            </Button>
          )}
        </Group>
      </Group>
      {inUse.length === 0 && <Empty>No coffee is in the book yet. Add the one that is served first.</Empty>}
      <div className={classes.coffees}>
        {inUse.map((coffee) => (
          <OneCoffee key={coffee.id} coffee={coffee} stock={stock} use={use} timeZone={session.site.timeZone} />
        ))}
      </div>
    </Stack>
  );
}

interface Props {
  coffee: Coffee;
  stock: Stock;
  use: CoffeeUse | undefined;
  timeZone: string;
}

function OneCoffee({ coffee, stock, use, timeZone }: Props) {
  const nowMs = useNow();
  const { data: bar } = useBar();
  const calendar = useCalendar();
  const grinders = bar?.grinders.filter(({ coffeeId }) => coffeeId === coffee.id) ?? [];
  const [first, ...rest] = nextBags(stock, coffee.id, timeZone, nowMs);
  const { sheet } = coffee;
  return (
    <section className="sheet" aria-label={sheet.name}>
      <Group justify="space-between" align="baseline">
        <Title order={2} size="h3">
          <Link to={`/coffee/coffees/${coffee.id}`}>{sheet.name}</Link>
        </Title>
        <span className="faint">
          {sheet.kind === 'blend' ? 'blend' : 'single origin'}
          {sheet.roast !== 'medium' && `, ${sheet.roast} roast`}
          {sheet.decaf && ', decaf'}
        </span>
      </Group>
      {sheet.recipeId === null && (
        <Text>
          It has no recipe yet, so it cannot be dialled in.{' '}
          <Link to={`/taste/trial/${coffee.id}`}>Find one by tasting</Link>, or write one in the house book.
        </Text>
      )}
      {grinders.map((grinder) => {
        const bag = stock.bags.find(({ state, grinderId }) => state === 'hopper' && grinderId === grinder.id);
        const freshness = bag ? freshnessIn(stock, bag, timeZone, nowMs) : null;
        return (
          <div key={grinder.id} className={classes.hopper}>
            <div>
              <Text>
                In <strong>{grinder.name}</strong>
                {leftWord(use, grinder.id)}
                {bag?.openedAt && (
                  <span className="faint">
                    ,{' '}
                    {openWord(
                      Date.parse(bag.openedAt),
                      nowMs,
                      calendar,
                      roastedBagOf(bag.sheet, timeZone).freezes,
                      sheet,
                    )}
                  </span>
                )}
              </Text>
              <Text className="faint">{freshness ? freshWord(freshness) : 'No listed bag is in this hopper.'}</Text>
            </div>
            <HopperButton grinderId={grinder.id} />
            {freshness && (
              <div className={classes.band}>
                <FreshBand freshness={freshness} coffee={sheet} />
              </div>
            )}
          </div>
        );
      })}
      <dl className={classes.facts}>
        <dt>Next bag</dt>
        <dd>
          {first ? (
            <>
              <Link to={`/coffee/bags/${first.bag.id}`}>roasted {dayWord(first.bag.kept.sheet.roastedOn)}</Link>
              <span className="faint"> {freshWord(first.freshness).toLowerCase()}</span>
            </>
          ) : (
            'none on the shelf'
          )}
        </dd>
        <dt>On the shelf</dt>
        <dd>{stockWord(first ? [first, ...rest] : rest)}</dd>
        <dt>Lasts</dt>
        <dd>
          {lastsWord(
            coffee,
            stock,
            use,
            grinders.map(({ id }) => id),
          )}
        </dd>
      </dl>
      <Slot of="coffeeNotes" told={{ coffeeId: coffee.id }} />
    </section>
  );
}

const LITTLE_G = 50;

/** ", about 0.8 kg left": by the bags and the pace, or since it was last weighed. */
function leftWord(use: CoffeeUse | undefined, grinderId: string): string {
  const hopper = use?.hoppers.find((one) => one.grinderId === grinderId);
  if (!hopper) return '';
  return hopper.leftG < LITTLE_G ? ', by its bags empty' : `, about ${kilograms(hopper.leftG)} left`;
}

function stockWord(bags: ReturnType<typeof nextBags>): string {
  const total = bags.reduce((sum, { bag }) => sum + bag.kept.sheet.weightG, 0);
  const frozen = bags.filter(({ freshness }) => freshness.state === 'frozen').length;
  const said = `${kilograms(total)} in ${bags.length} ${bags.length === 1 ? 'bag' : 'bags'}`;
  return frozen > 0 ? `${said}, ${frozen} of them frozen` : said;
}

/** "6 days (5 to 7), at 5.0 kg a day". */
function lastsWord(coffee: Coffee, stock: Stock, use: CoffeeUse | undefined, grinderIds: readonly string[]): string {
  if (!use) return 'not known for now';
  const daily = use.daily.find(({ coffeeId }) => coffeeId === coffee.id)?.grams ?? [];
  const closedG = stock.bags
    .filter(({ sheet, state }) => sheet.coffeeId === coffee.id && state !== 'hopper')
    .reduce((sum, { sheet }) => sum + sheet.weightG, 0);
  // What lies in the hoppers counts: by the last weighed tub, or by the bag and the pace.
  const inHoppersG = grinderIds.reduce(
    (sum, id) => sum + (use.hoppers.find(({ grinderId }) => grinderId === id)?.leftG ?? 0),
    0,
  );
  const lasts = runOut(closedG + inHoppersG, daily);
  if (!lasts) return 'not known before two days of use';
  const meanG = daily.reduce((sum, g) => sum + g, 0) / daily.length;
  const [low, high] = [Math.floor(lasts.lowDays), Math.ceil(lasts.highDays)];
  return `${lasts.days.toFixed(1)} working days (${low} to ${high}), at ${kilograms(meanG)} a day`;
}
