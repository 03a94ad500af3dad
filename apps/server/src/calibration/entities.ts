import type { PackedMemory } from '@tempera/core/calibration';
import { EntitySchema } from 'typeorm';
import { instant, integer, json, real, siteColumn } from '../kernel/entity.ts';

/** What a bar had taught at a moment; a cache, made again from the facts whenever it is not there. */
interface BarMemoryRow {
  siteId: string;
  /** Everything that happened before this has been heard, and nothing after. */
  upTo: Date;
  /** Facts up to this place in the order of arrival were there when it was made. */
  heardSeq: number;
  /** The engine that made it. */
  engine: number;
  madeAt: Date;
  state: PackedMemory;
}

const BarMemoryEntity = new EntitySchema<BarMemoryRow>({
  name: 'bar_memory',
  columns: {
    siteId: { ...siteColumn('bar_memory'), primary: true, primaryKeyConstraintName: 'bar_memory_pk' },
    upTo: instant('up_to', { primary: true, primaryKeyConstraintName: 'bar_memory_pk' }),
    heardSeq: real('heard_seq'),
    engine: integer('engine'),
    madeAt: instant('made_at', { default: () => 'now()' }),
    state: json('state'),
  },
});

export const calibrationEntities = [BarMemoryEntity];
