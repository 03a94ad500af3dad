import { Button, Group, Stack, Switch, Text, Textarea, TextInput, Title } from '@mantine/core';
import {
  recipeChangeSchema,
  recipeSchema,
  type Recipe,
  type RecipeHistory,
  type RecipeVersion,
} from '@tempera/contract/house';
import { reason as reasonSchema } from '@tempera/contract/field';
import type { Session } from '@tempera/contract/team';
import { businessDay } from '@tempera/core/house';
import { useEffect, useMemo, useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { v4 as uuidv4 } from 'uuid';
import { ApiProblem, sentenceOf } from '../kernel/api.ts';
import { useSheets } from '../kernel/sheets.ts';
import { staysHere } from '../kernel/whereabouts.ts';
import { differences, DifferenceTable, Overtaken, SheetFields, useFollowed, useSheetForm } from '../forms/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import classes from './House.module.css';
import { useRecipe, useWriteRecipe } from './queries.ts';
import { draftOfState } from './recipeDraft.ts';
import { freshRecipe, freshRoaster, recipeFields, roasterFields } from './recipeFields.ts';
import { RecipeChecks } from './RecipeChecks.tsx';
import { RatioField } from './RatioField.tsx';
import { useUsualBeside } from './useUsualBeside.ts';

/** Writes a recipe, or its next version. */
export function RecipeEditPage({ session }: { session: Session }) {
  const { recipeId } = useParams();
  const history = useRecipe(recipeId ?? null);
  const { data: baskets, error, refetch } = useSheets('basket');
  const failed = error ?? history.error;
  if (failed && !(baskets && (!recipeId || history.data)))
    return <Failed error={failed} onRetry={() => void Promise.all([refetch(), history.refetch()])} />;
  if (!baskets || (recipeId && !history.data)) return <Loading what="the recipe" />;
  if (session.person.role !== 'head')
    return <Text>Only a head barista changes the house book. Ask one to sign in.</Text>;
  return (
    <Followed
      key={recipeId}
      recipeId={recipeId ?? null}
      history={history.data ?? null}
      baskets={baskets
        .filter(({ retired }) => !retired)
        .map(({ id, sheet }) => ({ value: id, label: sheet.name, ...sheet }))}
      session={session}
    />
  );
}

function recipeOf(version: RecipeVersion): Recipe {
  const { id, recipeId, version: _number, reason, validFrom, approvedBy, writtenAt, ...recipe } = version;
  return recipe;
}

interface Props {
  recipeId: string | null;
  history: RecipeHistory | null;
  baskets: { value: string; label: string; name: string; minG: number; maxG: number }[];
  session: Session;
}

function Followed(props: Props) {
  const newest = props.history?.versions[0] ?? null;
  const { began, setChanged, beginAgain } = useFollowed(newest, (version) => version?.version ?? 0);
  return (
    <Editor
      key={began?.version ?? 0}
      {...props}
      newest={newest}
      began={began}
      onChanged={setChanged}
      onBeginAgain={beginAgain}
    />
  );
}

interface EditorProps extends Props {
  newest: RecipeVersion | null;
  began: RecipeVersion | null;
  onChanged: (changed: boolean) => void;
  onBeginAgain: () => void;
}

function Editor(props: EditorProps) {
  const { baskets, newest, began, onBeginAgain } = props;
  const draft = useRecipeDraft(props);
  const { fields, sheetForm, withRoaster, setWithRoaster, overtaken, setBasedOn, recipeId } = draft;
  const { read } = sheetForm;
  return (
    <Stack gap="md">
      <div>
        <Link to={began ? `/house/recipes/${recipeId}` : '/house'}>{began ? began.name : 'Recipes'}</Link>
        <Title order={1}>{began ? `The next version of ${began.name}` : 'A new recipe'}</Title>
      </div>
      <section className="sheet" aria-label="The recipe">
        <SheetFields sheetForm={sheetForm} only={fields} after={{ yieldG: <RatioField sheetForm={sheetForm} /> }} />
        <Switch
          mt="md"
          size="lg"
          label="Keep the roaster's start beside it"
          checked={withRoaster}
          onChange={(event) => setWithRoaster(event.currentTarget.checked)}
        />
        <RecipeChecks read={read} baskets={baskets} />
      </section>
      {overtaken && newest && (
        <Overtaken
          by={newest.approvedBy}
          fields={fields}
          theirs={newest}
          mine={read}
          onMine={() => setBasedOn(newest.version)}
          onTheirs={onBeginAgain}
        />
      )}
      <Decide began={began} draft={draft} />
    </Stack>
  );
}

/** The next version as it is written: its form, what it is based on, and how it is kept. */
function useRecipeDraft({ recipeId, baskets, session, newest, began, onChanged }: EditorProps) {
  const navigate = useNavigate();
  const place = useLocation();
  const draft = useMemo(() => draftOfState(place.state), [place]);
  const [basedOn, setBasedOn] = useState(began?.version ?? 0);
  const [withRoaster, setWithRoaster] = useState(Boolean(began?.roaster));
  const own = useMemo(() => recipeFields(baskets), [baskets]);
  const all = useMemo(() => [...own, ...roasterFields], [own]);
  const fields = withRoaster ? all : own;
  const start = useMemo(() => {
    const recipe = began ? recipeOf(began) : freshRecipe;
    return { ...recipe, taste: recipe.taste ?? freshRecipe.taste, roaster: recipe.roaster ?? freshRoaster };
  }, [began]);
  const drafted = useMemo(() => ({ ...start, ...draft?.recipe }), [start, draft]);
  const sheetForm = useSheetForm(recipeSchema, all, drafted, (typed) => ({
    ...typed,
    retired: false,
    roaster: withRoaster ? typed.roaster : null,
  }));
  useUsualBeside(sheetForm, began === null);
  const { read } = sheetForm;
  const { timeZone, dayStartsMin } = session.site;
  const [validFrom, setValidFrom] = useState(() => businessDay(Date.now(), timeZone, dayStartsMin));
  // A first version has nothing to be explained against.
  const [why, setWhy] = useState(draft?.why ?? (began ? '' : 'the first version'));
  const [asked, setAsked] = useState(false);
  const [ids] = useState(() => ({ version: uuidv4(), recipe: recipeId ?? uuidv4() }));
  const write = useWriteRecipe(ids.recipe);
  const change = recipeChangeSchema.safeParse({
    id: ids.version,
    basedOn,
    reason: why,
    validFrom,
    recipe: read,
  });
  const whyError = asked ? reasonSchema.safeParse(why).error?.issues[0]?.message : undefined;
  const overtaken = newest !== null && newest.version !== basedOn && sheetForm.changed;
  const changes = began ? differences(fields, start, read) : [];
  const { changed } = sheetForm;
  useEffect(() => onChanged(changed), [changed, onChanged]);

  const save = (retired = false): void => {
    setAsked(true);
    if (!sheetForm.check() || !change.success) return;
    const { data } = change;
    const isHere = staysHere();
    write.mutate(
      { ...data, recipe: { ...data.recipe, retired } },
      { onSuccess: () => isHere() && void navigate(retired ? '/house' : `/house/recipes/${ids.recipe}`) },
    );
  };
  const refused =
    write.error !== null && !(write.error instanceof ApiProblem && write.error.problem.code === 'changedMeanwhile');
  const failure = refused ? sentenceOf(write.error) : null;
  return {
    recipeId: ids.recipe,
    fields,
    sheetForm,
    withRoaster,
    setWithRoaster,
    overtaken,
    setBasedOn,
    changes,
    why: { text: why, set: setWhy, error: whyError },
    validFrom,
    setValidFrom,
    failure,
    isPending: write.isPending,
    save,
  };
}

interface DecideProps {
  began: RecipeVersion | null;
  draft: ReturnType<typeof useRecipeDraft>;
}

/** What changes, why, and from when; then it is approved. */
function Decide({ began, draft }: DecideProps) {
  const navigate = useNavigate();
  const { changes, why, validFrom, setValidFrom, failure, isPending, overtaken, save } = draft;
  return (
    <section className={`sheet ${classes.decide}`} aria-label="Why">
      {began && (
        <div>
          <Title order={2} size="h3">
            What changes
          </Title>
          <DifferenceTable differences={changes} before={`Version ${began.version}`} after="The next" />
        </div>
      )}
      <Textarea
        label="Why"
        description="In a few words, for those who find it changed."
        size="md"
        rows={2}
        value={why.text}
        onChange={(event) => why.set(event.currentTarget.value)}
        error={why.error}
      />
      <TextInput
        type="date"
        size="md"
        label="Holds from"
        value={validFrom}
        onChange={(event) => setValidFrom(event.currentTarget.value)}
      />
      {failure !== null && (
        <Text role="alert" c="var(--out)">
          {failure}
        </Text>
      )}
      <Group>
        <Button size="lg" loading={isPending} disabled={overtaken} onClick={() => save()}>
          {began ? 'Approve this version' : 'Approve this recipe'}
        </Button>
        <Button size="lg" variant="default" onClick={() => void navigate(-1)}>
          Leave it as it was
        </Button>
        {began && (
          <Button size="lg" variant="default" onClick={() => save(true)}>
            Take out of use
          </Button>
        )}
      </Group>
    </section>
  );
}
