import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { learnedDrip, stopNow } from './drip.ts';
import { goodBand } from './goodBand.ts';
import { packTrace, unpackTrace } from './packTrace.ts';
import { readTrace } from './readTrace.ts';
import { traceOfRecording, type RecordedSample } from './recording.ts';
import { tared } from './tare.ts';

const shotAt = (s: number): number => (s < 6 ? 0 : Math.min(36, 1.6 * (s - 6)));
const samples = (to: number, hz = 10): RecordedSample[] =>
  Array.from({ length: Math.round(to * hz) + 1 }, (_, i) => ({ timeS: i / hz, massG: shotAt(i / hz) }));

describe('a packed trace', () => {
  it('comes back to the hundredth of a gram, gaps and knocks included', () => {
    fc.assert(
      fc.property(
        fc.array(fc.option(fc.integer({ min: -500_000, max: 500_000 }), { nil: null }), { maxLength: 300 }),
        fc.integer({ min: 1, max: 100 }),
        (centigrams, hz) => {
          const massG = centigrams.map((value) => (value === null ? null : value / 100));
          expect(unpackTrace(packTrace({ hz, massG }))).toEqual({ hz, massG });
        },
      ),
      { seed: 1, numRuns: 200 },
    );
  });

  it('takes less than a third of the room', () => {
    const massG = samples(30).map(({ massG: mass }) => Math.round(mass * 10) / 10);
    expect(packTrace({ hz: 10, massG }).packed.length).toBeLessThan(JSON.stringify(massG).length / 2.5);
  });

  it('refuses what is none', () => {
    expect(() => unpackTrace({ hz: 10, packed: 'A!' })).toThrow(/"!" is no digit/);
    expect(unpackTrace({ hz: 10, packed: '' }).massG).toEqual([]);
  });
});

describe('a recording', () => {
  it('becomes a trace at the bench’s rate, whatever its own', () => {
    for (const hz of [4, 10, 33]) {
      const found = traceOfRecording(samples(30, hz));
      if (!found.ok) throw new Error(found.fault);
      expect(found.trace.massG).toHaveLength(301);
      expect(found.trace.massG[160]).toBeCloseTo(shotAt(16), 1);
    }
  });

  it.each<[string, RecordedSample[], string]>([
    ['nothing', [], 'noSamples'],
    ['words for numbers', samples(3).map(() => ({ timeS: Number.NaN, massG: Number.NaN })), 'noMass'],
    ['time that runs back', [...samples(10), { timeS: 4, massG: 3 }], 'timeRunsBack'],
    ['an hour', samples(10).map(({ timeS, massG }) => ({ timeS: timeS * 360, massG })), 'tooLong'],
    ['a weight of tons', samples(3).map(({ timeS }) => ({ timeS, massG: 1e7 })), 'noMass'],
  ])('of %s is refused with its reason', (_, broken, fault) => {
    expect(traceOfRecording(broken)).toEqual({ ok: false, fault });
  });

  it('of a cup that nobody tared is no scale that jumped, however late its first reading came', () => {
    for (const lateS of [0.05, 0.21, 0.38]) {
      const untared = samples(32).flatMap(({ timeS, massG }) =>
        timeS + lateS < 32 ? [{ timeS: timeS + lateS, massG: massG + 95 }] : [],
      );
      const found = traceOfRecording(untared);
      if (!found.ok) throw new Error(found.fault);
      const { signs, firstDropS } = readTrace({ ...tared(found.trace), pumpOffS: null });
      expect(signs).toEqual([]);
      expect(firstDropS).toBeGreaterThan(2);
    }
  });

  it('with a hole keeps the hole, and reads as a part', () => {
    const found = traceOfRecording(samples(32).filter(({ timeS }) => timeS < 12 || timeS > 17));
    if (!found.ok) throw new Error(found.fault);
    expect(found.trace.massG[140]).toBeNull();
    expect(readTrace({ ...found.trace, pumpOffS: null }).partial).toBe(true);
  });

  it('leaves out the lines that it cannot read, and counts them', () => {
    const mixed = samples(30).map((sample, i) => (i % 50 === 7 ? { ...sample, massG: Number.NaN } : sample));
    const found = traceOfRecording(mixed);
    expect(found).toMatchObject({ ok: true, lostLines: 6 });
  });

  it('whatever it holds, never reads as NaN', () => {
    const hostile = fc.array(
      fc.record({ timeS: fc.double({ min: -1, max: 200 }), massG: fc.double({ min: -6_000, max: 6_000 }) }),
      { maxLength: 60 },
    );
    fc.assert(
      fc.property(hostile, fc.boolean(), (lines, sorted) => {
        const found = traceOfRecording(sorted ? lines.toSorted((a, b) => a.timeS - b.timeS) : lines);
        if (!found.ok || !found.trace.massG.some((mass) => mass !== null)) return;
        const read = readTrace({ ...found.trace, pumpOffS: null });
        const numbers = [read.yieldG, read.peakFlowGps, read.firstDropS ?? 0, read.stopS ?? 0, read.afterDripG ?? 0];
        expect(numbers.every(Number.isFinite)).toBe(true);
      }),
      { seed: 2, numRuns: 300 },
    );
  });

  it('of a flat line shows no shot', () => {
    const flat = traceOfRecording(samples(20).map(({ timeS }) => ({ timeS, massG: 0 })));
    if (!flat.ok) throw new Error(flat.fault);
    expect(readTrace({ ...flat.trace, pumpOffS: null })).toMatchObject({ firstDropS: null, yieldG: 0 });
  });
});

describe('the drip of a group', () => {
  it('is the usual one until shots tell, and theirs in the end', () => {
    expect(learnedDrip([])).toMatchObject({ meanG: 1.6, count: 0 });
    // One shot of 2.6: weights 1/0.36 and 1/0.16, so 1.6 + 1.0 x 6.25 / 9.03 = 2.29.
    expect(learnedDrip([2.6]).meanG).toBeCloseTo(2.29, 2);
    expect(learnedDrip(Array.from({ length: 20 }, () => 2.6)).meanG).toBeCloseTo(2.58, 2);
    expect(learnedDrip([null, Number.NaN]).count).toBe(0);
  });

  it('tells when to stop: early by the drip and by the hand', () => {
    expect(stopNow(33, 1.5, { meanG: 2 }, 36)).toBe(false);
    // 33.6 + 0.3 x 1.5 = 34.05 >= 36 - 2
    expect(stopNow(33.6, 1.5, { meanG: 2 }, 36)).toBe(true);
  });
});

describe('the band of good shots', () => {
  const scaled = (factor: number) => ({ hz: 10, massG: samples(30).map(({ massG }) => massG * factor) });
  it('wants three shots', () => {
    expect(goodBand([scaled(1), scaled(1)])).toBeNull();
  });
  it('lies between them, and is as long as the shortest', () => {
    const short = { hz: 10, massG: scaled(1).massG.slice(0, 251) };
    const band = goodBand([scaled(0.9), short, scaled(1.1)]);
    // At 16 s: 14.4, 16.0 and 17.6 g; a tenth and nine tenths of the way between them.
    expect(band?.lowG[32]).toBeCloseTo(14.4 + 0.2 * 1.6, 6);
    expect(band?.highG[32]).toBeCloseTo(16 + 0.8 * 1.6, 6);
    expect(band?.lowG).toHaveLength(51);
  });
});
