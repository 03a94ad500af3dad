import type { Bar, Grinder, Place } from '@tempera/contract/bar';
import { policyOf } from '@tempera/contract/policy';
import { usualPolicy } from '@tempera/core/calibration';
import type { DataSource } from 'typeorm';
import { policyVersions, RecipeVersionEntity } from '../house/index.ts';
import { recentFacts, withoutTrace } from '../journal/index.ts';
import { problem } from '../platform/problems.ts';
import { SiteEntity } from '../team/index.ts';
import {
  CounterEntity,
  FixtureEntity,
  GrinderEntity,
  GroupEntity,
  MachineEntity,
  type GrinderRow,
} from './entities.ts';

const placeOf = ({ xCm, yCm, widthCm, depthCm }: Place): Place => ({ xCm, yCm, widthCm, depthCm });

/** The bar of a café as it stands, with the facts that tell how each grinder stands. */
export async function readBar(db: DataSource, siteId: string): Promise<Bar> {
  const ofSite = { where: { siteId }, order: { name: 'ASC' } } as const;
  const [site, counters, machines, groups, grinders, fixtures, recipes, [policy], facts] = await Promise.all([
    db.getRepository(SiteEntity).findOneByOrFail({ id: siteId }),
    db.getRepository(CounterEntity).find({ where: { siteId }, order: { yCm: 'ASC' } }),
    db.getRepository(MachineEntity).find(ofSite),
    db.getRepository(GroupEntity).find({ where: { siteId }, order: { position: 'ASC' } }),
    db.getRepository(GrinderEntity).find({ where: { siteId }, order: { yCm: 'ASC', xCm: 'ASC' } }),
    db.getRepository(FixtureEntity).find(ofSite),
    db.getRepository(RecipeVersionEntity).findBy({ siteId }),
    policyVersions(db, siteId),
    recentFacts(db, siteId, null),
  ]);
  const withRecipe = ({
    siteId: _site,
    recipeVersionId,
    xCm,
    yCm,
    widthCm,
    depthCm,
    ...grinder
  }: GrinderRow): Grinder => {
    const found = recipes.find((recipe) => recipe.id === recipeVersionId);
    if (!found) throw problem('unknownRecipe');
    const { siteId: _recipeSite, ...recipe } = found;
    return { ...grinder, place: { xCm, yCm, widthCm, depthCm }, recipe };
  };
  return {
    room: { widthCm: site.roomWidthCm, depthCm: site.roomDepthCm },
    counters: counters.map((counter) => ({ id: counter.id, faces: counter.faces, place: placeOf(counter) })),
    house: policyOf(policy ?? usualPolicy),
    machines: machines.map((machine) => ({
      id: machine.id,
      name: machine.name,
      place: placeOf(machine),
      groups: groups
        .filter((group) => group.machineId === machine.id)
        .map(({ id, name, machineId, position }) => ({ id, name, machineId, position })),
    })),
    grinders: grinders.map(withRecipe),
    fixtures: fixtures.map((fixture) => ({
      id: fixture.id,
      kind: fixture.kind,
      name: fixture.name,
      place: placeOf(fixture),
    })),
    facts: facts.map(withoutTrace),
  };
}
