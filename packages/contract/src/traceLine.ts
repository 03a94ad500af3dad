import type { TraceReading } from '@tempera/core/capture';
import { z } from 'zod';
import { positive, QUANTITY_DIGITS, rounded } from './line.ts';

/** One line of `npm run -s read-trace`, in and out: a stable contract, like the advice line. */
const MOST_SAMPLES = 60_000;

/** Grams on the scale during one shot, sample by sample. */
export const traceLineSchema = z.strictObject({
  hz: positive.max(1_000),
  massG: z
    .array(z.number().min(-10_000).max(10_000).nullable())
    .min(1)
    .max(MOST_SAMPLES)
    .refine((massG) => massG.some((mass) => mass !== null), { error: 'the trace holds no sample' }),
  pumpOffS: z.number().nonnegative().nullable(),
});

const signKinds = ['channel', 'spurt', 'knock', 'tareJump', 'cupLifted', 'gap', 'choke'] as const;

/** What was read from them. */
export const traceAnswerSchema = z.strictObject({
  firstDropS: z.number().nullable(),
  stopS: z.number().nullable(),
  yieldG: z.number(),
  afterDripG: z.number().nullable(),
  peakFlowGps: z.number(),
  partial: z.boolean(),
  signs: z.array(z.strictObject({ kind: z.enum(signKinds), atS: z.number() })),
});

/** An answer as it is written. */
export type TraceAnswer = z.infer<typeof traceAnswerSchema>;

/** The answer line of a reading. */
export function answerOfReading(reading: TraceReading): TraceAnswer {
  const shown = (value: number): number => rounded(value, QUANTITY_DIGITS);
  const shownOrNull = (value: number | null): number | null => (value === null ? null : shown(value));
  return {
    firstDropS: shownOrNull(reading.firstDropS),
    stopS: shownOrNull(reading.stopS),
    yieldG: shown(reading.yieldG),
    afterDripG: shownOrNull(reading.afterDripG),
    peakFlowGps: shown(reading.peakFlowGps),
    partial: reading.partial,
    signs: reading.signs.map(({ kind, atS }) => ({ kind, atS: shown(atS) })),
  };
}
