import type { PieceKind, Place, PlanChange } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import type { DataSource, EntitySchema } from 'typeorm';
import { problem } from '../kernel/problems.ts';
import { writeVersion } from '../kernel/sheets.ts';
import { SiteEntity } from '../team/index.ts';
import { CounterEntity, FixtureEntity, GrinderEntity, MachineEntity } from './entities.ts';

type PlacedPiece = Place & { id: string; siteId: string };

const entities: Record<PieceKind, EntitySchema<PlacedPiece>> = {
  machine: MachineEntity,
  grinder: GrinderEntity,
  fixture: FixtureEntity,
  counter: CounterEntity,
};

/**
 * Puts every piece where somebody moved it. The same plan sent twice is answered as done.
 * @throws ProblemError unknownPart, changedMeanwhile
 */
export async function changePlan(db: DataSource, session: Session, change: PlanChange): Promise<void> {
  const siteId = session.site.id;
  await db.transaction(async (tx) => {
    const site = await tx
      .getRepository(SiteEntity)
      .findOneOrFail({ where: { id: siteId }, lock: { mode: 'pessimistic_write' } });
    const standing: PlacedPiece[] = [];
    for (const { kind, id } of change.pieces) {
      const piece = await tx.getRepository(entities[kind]).findOneBy({ id, siteId });
      if (!piece) throw problem('unknownPart');
      standing.push(piece);
    }
    if (site.planRevision !== change.basedOn) {
      const stands = change.pieces.every(({ place }, i) => isAt(standing[i], place));
      if (site.planRevision === change.basedOn + 1 && stands) return;
      throw problem('changedMeanwhile');
    }
    for (const { kind, id, place } of change.pieces) await tx.getRepository(entities[kind]).update({ id }, place);
    const revision = site.planRevision + 1;
    const { widthCm, depthCm } = change.room;
    await tx
      .getRepository(SiteEntity)
      .update({ id: siteId }, { planRevision: revision, roomWidthCm: widthCm, roomDepthCm: depthCm });
    await writeVersion(
      tx,
      { siteId, personId: session.person.id },
      'plan',
      siteId,
      { revision, retired: false },
      change,
    );
  });
}

function isAt(piece: PlacedPiece | null | undefined, { xCm, yCm, widthCm, depthCm }: Place): boolean {
  return piece?.xCm === xCm && piece.yCm === yCm && piece.widthCm === widthCm && piece.depthCm === depthCm;
}
