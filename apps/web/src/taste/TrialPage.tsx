import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import { benchTargetOf } from '@tempera/contract/station';
import { settingFor } from '@tempera/core/calibration';
import type { StandingFacts } from '@tempera/core/facts';
import type { Session } from '@tempera/contract/team';
import { draftedRecipe, MOST_CUPS, type Trial, type TrialCup, type TrialState } from '@tempera/core/taste';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { viewBench } from '../calibration/index.ts';
import { memoryOf } from '../kernel/barMemory.ts';
import { useRecipesInForce, type RecipeDraft } from '../house/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { grams, seconds } from '../kernel/format.ts';
import { useSheets } from '../kernel/sheets.ts';
import { useWelcome } from '../team/index.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { TakeBack } from './TakeBack.tsx';
import { TrialPairForm } from './TrialPairForm.tsx';
import { TrialStart } from './TrialStart.tsx';
import { betterWord, cupWord } from './trialWords.ts';
import { useTrial } from './useTrial.ts';

/** A trial of a coffee: its recipe is looked for by tasting, two cups at a time. */
export function TrialPage({ session }: { session: Session }) {
  const { coffeeId = '' } = useParams();
  const bar = useBar();
  const coffees = useSheets('coffee');
  const recipes = useRecipesInForce();
  const facts = useStandingFacts();
  const { trial, state } = useTrial(facts, coffeeId);
  const { data: welcome } = useWelcome();
  const write = useWriteStep();
  const failed = bar.error ?? coffees.error ?? recipes.error;
  if (!bar.data || !coffees.data || !recipes.data) {
    const again = (): void => void Promise.all([bar.refetch(), coffees.refetch(), recipes.refetch()]);
    return failed ? <Failed error={failed} onRetry={again} /> : <Loading what="the coffee" />;
  }
  const coffee = coffees.data.find(({ id }) => id === coffeeId);
  if (!coffee) return <Text>There is no such coffee. Go back to the list.</Text>;
  const people = welcome?.sites.find(({ id }) => id === session.site.id)?.people ?? [session.person];
  const recipe = recipes.data.find(({ recipeId }) => recipeId === coffee.sheet.recipeId) ?? null;
  const grinder = bar.data.grinders.find((one) => one.coffeeId === coffeeId) ?? null;
  return (
    <Stack gap="md">
      <Group justify="space-between">
        <div>
          <Link to={`/coffee/coffees/${coffeeId}`}>{coffee.sheet.name}</Link>
          <Title order={1}>Find a recipe by tasting</Title>
        </div>
        {trial && <GiveUp trial={trial} />}
      </Group>
      {trial === null ? (
        <TrialStart
          recipe={recipe}
          grinder={grinder}
          onBegin={(began) => write({ step: 'trialBegan', coffeeId, ...began })}
        />
      ) : (
        <Running bar={bar.data} facts={facts} trial={trial} state={state} people={people} session={session} />
      )}
      {trial && state && <Standing trial={trial} state={state} recipe={recipe} name={coffee.sheet.name} />}
      {trial && <Tasted trial={trial} />}
    </Stack>
  );
}

/** Gives a trial up, once asked: its cups are drunk, and would have to be drunk again. */
function GiveUp({ trial }: { trial: Trial }) {
  const write = useWriteStep();
  const [asked, setAsked] = useState(false);
  const cups = 2 * trial.tasted.length;
  const giveUp = (): void => {
    setAsked(false);
    write({ step: 'takenBack', machineId: null, readings: [], takesBack: trial.began.id });
  };
  return (
    <Group gap="xs">
      {asked && (
        <Button variant="default" onClick={giveUp}>
          Give up{cups > 0 && `, with the ${cups} cups`}
        </Button>
      )}
      <Button variant="subtle" color="umber" onClick={() => (asked || cups > 0 ? setAsked(!asked) : giveUp())}>
        {asked ? 'No, go on' : 'Give this trial up'}
      </Button>
    </Group>
  );
}

interface RunningProps {
  bar: Bar;
  facts: StandingFacts;
  trial: Trial;
  state: TrialState | null;
  people: readonly { id: string; name: string }[];
  session: Session;
}

/** The pair that is next, or why there is none. */
function Running({ bar, facts, trial, state, people, session }: RunningProps) {
  const write = useWriteStep();
  const nowMs = useNow();
  if (!state) return <Loading what="the next two cups" />;
  if (!state.next) {
    return (
      <section className="sheet" aria-label="The trial is over">
        <Text>
          {state.over === 'allCups'
            ? `${MOST_CUPS} cups are drunk, and a tongue is tired by then. This is what they say.`
            : 'Two more cups would not change what is written down. The trial is over.'}
        </Text>
      </section>
    );
  }
  const { coffeeId } = trial.began.body;
  const grinder = bar.grinders.find((one) => one.coffeeId === coffeeId) ?? null;
  /** Where the collar gives a cup's time, as the bar knows the grinder by now. */
  const markFor = ({ doseG, ratio, timeS }: TrialCup): number | null => {
    if (!grinder) return null;
    const recipe = { ...grinder.recipe, doseG, yieldG: doseG * ratio };
    const { state: bench } = viewBench({ ...grinder, recipe }, facts, bar, nowMs, memoryOf(bar, facts));
    const target = { ...benchTargetOf({ ...grinder, recipe }), timeS: { min: timeS - 1, max: timeS + 1 } };
    const { mostSteps: _cap, ...dial } = bench.adviceCase.dial;
    return settingFor({ ...bench.adviceCase, recipe: target, dial }).setting;
  };
  return (
    <TrialPairForm
      key={trial.tasted.length}
      number={trial.tasted.length + 1}
      next={state.next}
      blind={trial.began.body.blind}
      showsTemp={trial.plan.axes.includes('tempC')}
      markFor={markFor}
      people={people}
      personId={session.person.id}
      onKeep={(pair) => write({ step: 'trialTasted', trialId: trial.began.body.trialId, ...pair })}
    />
  );
}

/** What a bar lets pass about a yield and a time. */
const YIELD_GIVE_G = 1.5;
const TIME_GIVE_S = 2.5;

interface StandingProps {
  trial: Trial;
  state: TrialState;
  recipe: { recipeId: string } | null;
  name: string;
}

/** Where the best is believed to lie, with its doubt, and the recipe that would be written. */
function Standing({ trial, state: { best, cups, over }, recipe, name }: StandingProps) {
  const { doseG, yieldG, timeMinS, timeMaxS, tempC, doubt } = draftedRecipe(best);
  const { start } = trial.plan;
  if (cups === 0) return null;
  const middleS = (timeMinS + timeMaxS) / 2;
  const startYieldG = start.doseG * start.ratio;
  const draft: RecipeDraft = {
    recipe: {
      ...{ doseG, yieldG, timeMinS, timeMaxS },
      ...(trial.plan.axes.includes('tempC') ? { tempC } : {}),
      ...(recipe ? {} : { name }),
    },
    why:
      `Found by tasting ${cups} cups, two at a time: ${yieldG} g, give or take ${doubt.yieldG.toFixed(1)}, ` +
      `in ${middleS} s, give or take ${doubt.timeS.toFixed(1)}, from ${doseG} g.`,
  };
  return (
    <section className="sheet" aria-label="What the cups say">
      <Title order={2} size="h3">
        What {cups} cups say
      </Title>
      <BandRow
        name="Yield"
        unit="g"
        value={yieldG}
        window={{ low: startYieldG - YIELD_GIVE_G, high: startYieldG + YIELD_GIVE_G }}
        doubt={{ low: yieldG - doubt.yieldG, high: yieldG + doubt.yieldG }}
        shown={`${grams(yieldG)} ± ${doubt.yieldG.toFixed(1)}`}
      />
      <BandRow
        name="Time"
        unit="s"
        value={middleS}
        window={{ low: start.timeS - TIME_GIVE_S, high: start.timeS + TIME_GIVE_S }}
        doubt={{ low: middleS - doubt.timeS, high: middleS + doubt.timeS }}
        shown={`${seconds(middleS)} ± ${doubt.timeS.toFixed(1)}`}
      />
      <Text className="faint">
        The bands are where it began: {grams(startYieldG)} in {seconds(start.timeS)}, from {grams(start.doseG)}.
      </Text>
      <Button
        component={Link}
        mt="sm"
        size="lg"
        variant={over ? 'filled' : 'default'}
        to={recipe ? `/house/recipes/${recipe.recipeId}/edit` : '/house/recipes/new'}
        state={{ draft }}
      >
        {over ? 'Draft the recipe' : 'Stop here and draft the recipe'}
      </Button>
    </section>
  );
}

/** Every pair that was tasted; one that was a slip can be taken back. */
function Tasted({ trial }: { trial: Trial }) {
  if (trial.tasted.length === 0) return null;
  return (
    <section className="sheet" aria-label="Tasted">
      <Title order={2} size="h3">
        Tasted
      </Title>
      <ol>
        {trial.tasted.map(({ id, body }) => (
          <li key={id}>
            <Group gap="sm">
              <Text>
                Left {cupWord(body.left)}, right {cupWord(body.right)}: {betterWord[body.better].toLowerCase()}
              </Text>
              <TakeBack stepIds={[id]} />
            </Group>
          </li>
        ))}
      </ol>
    </section>
  );
}
