import { describe, expect, it } from 'vitest';
import { traceSign } from './traceSign.ts';

const HZ = 10;
const SHOT_S = 28;
const reads = (massAt: (timeS: number) => number | null) =>
  traceSign(
    {
      timeS: SHOT_S,
      trace: { hz: HZ, massG: Array.from({ length: (SHOT_S + 4) * HZ }, (_, i) => massAt(i / HZ)) },
    },
    null,
  );
const pours = (gps: (timeS: number) => number) => {
  const grams: number[] = [0];
  for (let i = 1; i < (SHOT_S + 5) * HZ; i += 1) {
    const timeS = i / HZ;
    grams.push((grams.at(-1) ?? 0) + (timeS < 6 || timeS > SHOT_S ? 0 : gps(timeS) / HZ));
  }
  return (timeS: number): number => grams[Math.round(timeS * HZ)] ?? 0;
};

describe('what a trace shows beside its numbers', () => {
  it('is nothing on an even shot, and on one that was typed', () => {
    expect(reads(pours(() => 1.6))).toBeNull();
    expect(traceSign({ timeS: 28, trace: null }, null)).toBeNull();
    expect(traceSign({ timeS: 28, trace: { hz: 10, massG: [null, null] } }, null)).toBeNull();
  });

  it('is a channel where the flow jumps and stays, and offers to mark it', () => {
    expect(reads(pours((timeS) => (timeS < 15 ? 1.2 : 2.4)))).toEqual({
      says: 'The flow jumped at 15 s: it looks like a channel.',
      flaw: 'channel',
    });
  });

  it('is a knock that only the scale felt, with no flaw to mark', () => {
    const even = pours(() => 1.6);
    const sign = reads((timeS) => even(timeS) + (timeS > 14 && timeS < 14.5 ? 6 : 0));
    expect(sign).toMatchObject({ flaw: null });
    expect(sign?.says).toMatch(/^The scale was knocked at 14 s/);
  });

  it('names the puck before the scale where both happened', () => {
    const jumps = pours((timeS) => (timeS < 15 ? 1.2 : 2.4));
    expect(reads((timeS) => jumps(timeS) + (timeS > 22 && timeS < 22.4 ? 6 : 0))?.flaw).toBe('channel');
  });
});
