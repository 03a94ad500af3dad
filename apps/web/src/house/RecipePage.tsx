import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { RecipeVersion } from '@tempera/contract/house';
import type { Session } from '@tempera/contract/team';
import { IconPrinter } from '@tabler/icons-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useSheets } from '../kernel/sheets.ts';
import { Slot } from '../kernel/slots.tsx';
import { differences, DifferenceTable } from '../forms/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import classes from './House.module.css';
import { useRecipe } from './queries.ts';
import { recipeFields, roasterFields } from './recipeFields.ts';
import { fromWord, RecipeSheet } from './RecipeSheet.tsx';
import { inOutWord, versionWord } from './recipeWords.ts';

/** One recipe: the version in force on its card, every version, and what changed between two. */
export function RecipePage({ session }: { session: Session }) {
  const { recipeId = '' } = useParams();
  const { data, error, refetch } = useRecipe(recipeId);
  const { data: baskets } = useSheets('basket');
  const [looked, setLooked] = useState<number | null>(null);
  if (!data || !baskets)
    return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the recipe" />;
  const shown = data.versions.find(({ version }) => version === (looked ?? data.inForce)) ?? data.versions[0];
  if (!shown) return <Loading what="the recipe" />;
  const before = data.versions.find(({ version }) => version === shown.version - 1) ?? null;
  const options = baskets.map(({ id, sheet }) => ({ value: id, label: sheet.name }));
  const fields = [...recipeFields(options), ...roasterFields];
  return (
    <Stack gap="md">
      <Group justify="space-between">
        <div>
          <Link to="/house" className={classes.noPrint}>
            Recipes
          </Link>
          <Title order={1}>{shown.name}</Title>
          <Text className="faint">{standingOf(shown, data.inForce)}</Text>
        </div>
        <Group className={classes.noPrint}>
          <Button variant="default" leftSection={<IconPrinter />} onClick={() => window.print()}>
            Print
          </Button>
          {session.person.role === 'head' && (
            <Button component={Link} to={`/house/recipes/${recipeId}/edit`}>
              Write the next version
            </Button>
          )}
        </Group>
      </Group>
      <Slot of="recipeAim" told={{ recipeId, session }} />
      <RecipeSheet recipe={shown} basketName={options.find(({ value }) => value === shown.basketId)?.label ?? null} />
      {before && (
        <section className={`sheet ${classes.noPrint}`} aria-label="What changed">
          <Title order={2} size="h3">
            What version {shown.version} changed
          </Title>
          <DifferenceTable
            differences={differences(fields, before, shown)}
            before={`Version ${before.version}`}
            after={`Version ${shown.version}`}
          />
        </section>
      )}
      <section className={classes.noPrint} aria-labelledby="versions">
        <Title order={2} size="h3" id="versions">
          Every version
        </Title>
        <ol className={classes.versions}>
          {data.versions.map((version) => (
            <li key={version.version}>
              <button
                type="button"
                aria-pressed={version.version === shown.version}
                onClick={() => setLooked(version.version)}
              >
                <span className="number">{inOutWord(version)}</span>
                <span className="faint">{versionWord(version, fromWord(version.validFrom))}</span>
              </button>
            </li>
          ))}
        </ol>
      </section>
    </Stack>
  );
}

function standingOf({ version, validFrom, retired }: RecipeVersion, inForce: number): string {
  if (retired) return 'Out of use; kept for the shots that were judged by it.';
  if (version === inForce) return 'In force';
  return version > inForce ? `Holds ${fromWord(validFrom)}` : 'An older version, as it was';
}
