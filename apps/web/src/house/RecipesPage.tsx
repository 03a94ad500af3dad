import { Button, Stack, Switch, Text, Title } from '@mantine/core';
import type { RecipesQuery, RecipeVersion } from '@tempera/contract/house';
import type { Session } from '@tempera/contract/team';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayWord, grams, ratio } from '../kernel/format.ts';
import { LongTable, type Column, type Look } from '../ui/LongTable.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { findingWord } from './findingWord.ts';
import classes from './House.module.css';
import { HouseTabs } from './HouseTabs.tsx';
import { firstRecipes, useFindings, useRecipePage } from './queries.ts';
import { timeWord } from './recipeWords.ts';

const { perPage, retired: firstRetired, ...opens } = firstRecipes;
const NEVER = '2000-01-01';

const columns: Column<RecipeVersion, RecipesQuery['sort']>[] = [
  { name: 'Recipe', sort: 'name', cell: ({ recipeId, name }) => <Link to={`/house/recipes/${recipeId}`}>{name}</Link> },
  { name: 'In', sort: 'doseG', number: true, cell: ({ doseG }) => grams(doseG) },
  { name: 'Out', sort: 'yieldG', number: true, cell: ({ yieldG }) => grams(yieldG) },
  { name: 'Ratio', number: true, cell: ({ yieldG, doseG }) => ratio(yieldG, doseG) },
  { name: 'Time', cell: timeWord },
  { name: 'Version', number: true, cell: ({ version }) => version },
  {
    name: 'From',
    sort: 'writtenAt',
    cell: ({ validFrom }) => (validFrom === NEVER ? 'the start' : dayWord(validFrom)),
  },
];

/** The house's recipes, and what in the house does not go together. */
export function RecipesPage({ session }: { session: Session }) {
  const [look, setLook] = useState<Look<RecipesQuery['sort']>>({ ...opens });
  const [retired, setRetired] = useState<boolean>(firstRetired);
  const { data, error, refetch } = useRecipePage({ ...look, perPage, retired });
  if (!data) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the recipes" />;
  return (
    <Stack gap="md">
      <HouseTabs />
      <Title order={1}>Recipes</Title>
      <Findings />
      <LongTable
        label="Recipes"
        columns={columns}
        rows={data.rows}
        keyOf={({ recipeId }) => recipeId}
        total={data.total}
        perPage={perPage}
        look={look}
        onLook={setLook}
        searchLabel="Find a recipe"
        empty={retired ? 'No recipe is out of use.' : 'No recipe matches. Write one, or look for something else.'}
        beside={
          <>
            <Switch
              size="lg"
              label="Out of use"
              checked={retired}
              onChange={(event) => setRetired(event.currentTarget.checked)}
            />
            {session.person.role === 'head' && (
              <Button component={Link} to="/house/recipes/new">
                Write a recipe
              </Button>
            )}
          </>
        }
      />
    </Stack>
  );
}

const pathOf = { recipe: '/house/recipes', coffee: '/coffee/coffees', grinder: '/bar/grinder' } as const;

/** What does not go together, each with the way to put it right. */
function Findings() {
  const { data } = useFindings();
  if (!data || data.findings.length === 0) return null;
  return (
    <section className={`sheet ${classes.findings}`} aria-label="What does not go together">
      <Title order={2} size="h3">
        What does not go together
      </Title>
      <ul>
        {data.findings.map((finding) => (
          <li key={`${finding.kind} ${finding.on.id}`}>
            <Text component="span">{findingWord(finding)}</Text>{' '}
            <Link to={`${pathOf[finding.on.kind]}/${finding.on.id}`}>Put it right</Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
