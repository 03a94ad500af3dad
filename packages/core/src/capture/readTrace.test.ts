import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectedFinalG, findFirstDropS, flowGps, goodStart, lastMassG, readTrace } from './index.ts';

interface MadeShot {
  dryS?: number;
  gps?: (sinceDropS: number) => number;
  stopS?: number;
  /** Seconds of the drip's decay; the trace goes on for five of them. */
  dripS?: number;
}

/** A made-up shot at 10 Hz: dry, then a flow, then a drip that fades. Its own physics, not the simulated bar's. */
function made({ dryS = 6, gps = () => 1.5, stopS = 27, dripS = 0.6 }: MadeShot = {}): number[] {
  const massG: number[] = [];
  let cup = 0;
  for (let i = 0; i <= (stopS + 5 * dripS) * 10; i += 1) {
    massG.push(cup);
    const t = i / 10;
    if (t >= dryS) cup += (t < stopS ? gps(t - dryS) : gps(stopS - dryS) * Math.exp(-(t - stopS) / dripS)) / 10;
  }
  return massG;
}

/** Small even noise without a dice: squares, shuffled. */
const noisy = (massG: readonly number[], g: number): number[] =>
  massG.map((mass, i) => mass + g * ((((i * i * 7919) % 41) - 20) / 20));
const read = (massG: readonly (number | null)[], pumpOffS: number | null = 27) =>
  readTrace({ hz: 10, massG, pumpOffS });
const kinds = (massG: readonly (number | null)[], pumpOffS: number | null = 27) =>
  read(massG, pumpOffS).signs.map(({ kind }) => kind);

describe('reading a sound trace', () => {
  it('finds drop, stop, yield, after-drip and flow', () => {
    // By hand: 21 s at 1.5 g/s are 31.5 g at the stop; 1.5 * 0.6 = 0.9 g drip after it.
    const reading = read(noisy(made(), 0.05), null);
    expect(reading.firstDropS).toBeCloseTo(6, 0);
    expect(reading.stopS).toBeGreaterThan(26.6);
    expect(reading.stopS).toBeLessThan(27.4);
    expect(Math.abs(reading.yieldG - 32.4)).toBeLessThan(0.3);
    expect(Math.abs((reading.afterDripG ?? 0) - 0.9)).toBeLessThan(0.5);
    expect(reading.peakFlowGps).toBeCloseTo(1.5, 1);
    expect(reading).toMatchObject({ partial: false, signs: [] });
  });

  it('believes the machine about the stop', () => {
    expect(read(made(), 26.9).stopS).toBe(26.9);
  });

  it('finds the first drop within 0.3 s whatever the flow begins like', () => {
    for (const dryS of [4, 6.3, 9.8]) {
      for (const ramp of [0.1, 1, 2]) {
        const massG = noisy(made({ dryS, gps: (s) => 1.6 * Math.min(1, (s + 0.1) / ramp) }), 0.06);
        expect(Math.abs((read(massG).firstDropS ?? 99) - dryS)).toBeLessThanOrEqual(0.3);
      }
    }
  });

  it('reads from the empty cup, wherever the scale calls it zero', () => {
    const offset = made().map((mass) => mass - 3.2);
    expect(read(offset).yieldG).toBeCloseTo(32.4, 0);
    expect(read(offset).firstDropS).toBeCloseTo(6, 0);
  });

  it('calls a swelling flow and a slow start no channel', () => {
    expect(kinds(noisy(made({ gps: (s) => 1.2 + 0.03 * s }), 0.05))).toEqual([]);
    expect(kinds(noisy(made({ gps: (s) => 1.8 * Math.min(1, (s + 0.1) / 5) }), 0.05))).toEqual([]);
  });
});

describe('signs in a trace', () => {
  it('takes a pump that breaks off between two readings for no jump, at any rate, with a scale that reads to a tenth', () => {
    const rounded = (massG: readonly number[]): number[] => massG.map((mass) => Math.round(mass * 10) / 10);
    for (const hz of [5, 10, 20]) {
      for (const stopS of [18.13, 19.37, 21.84, 24.05]) {
        for (const gps of [1, 2, 2.8]) {
          const cup = (t: number): number => {
            const ran = gps * Math.max(0, Math.min(t, stopS) - 6);
            return ran + (t > stopS ? gps * 0.15 * (1 - Math.exp(-(t - stopS) / 0.15)) : 0);
          };
          const massG = rounded(
            noisy(
              Array.from({ length: 30 * hz }, (_, i) => cup(i / hz)),
              0.08,
            ),
          );
          const { signs, yieldG } = readTrace({ hz, massG, pumpOffS: null });
          expect([hz, stopS, gps, signs]).toEqual([hz, stopS, gps, []]);
          expect(Math.abs(yieldG - cup(30))).toBeLessThan(0.3);
        }
      }
    }
  });

  it('sees a flow that doubles after it had swelled for most of the shot', () => {
    const swells = (t: number): number => 1.8 * Math.min(1, t / 7) * (t > 11 ? 2 : 1);
    expect(kinds(noisy(made({ dryS: 9, gps: swells, stopS: 25 }), 0.05), 25)).toEqual(['channel']);
    expect(kinds(noisy(made({ dryS: 9, gps: (t) => 1.8 * Math.min(1, t / 7), stopS: 25 }), 0.05), 25)).toEqual([]);
  });

  it('takes a scale that swims for no scale that is knocked', () => {
    const hz = 20;
    const massG = Array.from({ length: 30 * hz }, (_, i) => 1.8 * Math.max(0, Math.min(i / hz, 24) - 6));
    const random = (i: number): number => Math.sin(i * 12.9898) * Math.sin(i * 78.233) + Math.sin(i * 39.425) * 0.5;
    const swims = massG.map((mass, i) => mass + 0.22 * random(i));
    expect(readTrace({ hz, massG: swims, pumpOffS: 24 }).signs).toEqual([]);
  });

  it('sees a channel where the flow rises for good, and a spurt where it falls back', () => {
    const channel = read(noisy(made({ gps: (s) => (s > 9 ? 2.3 : 1.4) }), 0.05));
    expect(channel.signs.map(({ kind }) => kind)).toEqual(['channel']);
    expect(Math.abs((channel.signs[0]?.atS ?? 0) - 15)).toBeLessThan(1);
    expect(kinds(made({ gps: (s) => (s > 9 && s < 11 ? 3 : 1.4) }))).toEqual(['spurt']);
  });

  it('takes a knock out and says where it was', () => {
    const massG = made();
    massG[150] = (massG[150] ?? 0) + 6;
    massG[151] = (massG[151] ?? 0) - 3;
    const reading = read(massG);
    expect(reading.signs).toEqual([{ kind: 'knock', atS: 15 }]);
    expect(reading.peakFlowGps).toBeLessThan(1.8);
    expect(reading.yieldG).toBeCloseTo(32.4, 0);
  });

  it('goes on over a tare in mid-shot', () => {
    const massG = made().map((mass, i) => (i >= 180 ? mass - 18 : mass));
    const reading = read(massG);
    expect(reading.signs).toEqual([{ kind: 'tareJump', atS: 18 }]);
    expect(Math.abs(reading.yieldG - 32.4)).toBeLessThan(0.6);
  });

  it('keeps the yield when the cup is lifted after the drip, and calls it partial when lifted before', () => {
    const late = [...made(), ...Array<number>(20).fill(-80)];
    expect(read(late)).toMatchObject({ partial: false, signs: [{ kind: 'cupLifted', atS: 30.1 }] });
    expect(read(late).yieldG).toBeCloseTo(32.4, 0);
    const early = made().map((mass, i) => (i >= 200 ? 0 : mass));
    expect(read(early)).toMatchObject({ partial: true, afterDripG: null, signs: [{ kind: 'cupLifted', atS: 20 }] });
  });

  it('bridges a short loss, names a long one, and calls the trace partial when it hides the shot', () => {
    const lost = (from: number, to: number) => made().map((mass, i) => (i >= from && i < to ? null : mass));
    expect(read(lost(100, 103))).toMatchObject({ partial: false, signs: [] });
    expect(read(lost(100, 112))).toMatchObject({ partial: false, signs: [{ kind: 'gap', atS: 10 }] });
    expect(read(lost(100, 140))).toMatchObject({ partial: true });
    expect(read(lost(100, 140)).yieldG).toBeCloseTo(32.4, 0);
  });

  it('knows a choke: nothing for long, or drops only', () => {
    expect(kinds(Array<number>(300).fill(0), 30)).toEqual(['choke']);
    expect(read(Array<number>(300).fill(0), 30)).toMatchObject({ firstDropS: null, yieldG: 0, peakFlowGps: 0 });
    expect(kinds(made({ dryS: 14, gps: () => 0.25, stopS: 45 }), 45)).toEqual(['choke']);
  });

  it('calls a trace that ends before its stop partial', () => {
    expect(read(made().slice(0, 200))).toMatchObject({ partial: true, afterDripG: null });
  });
});

describe('hostile traces', () => {
  it('refuses a trace without a sample or without a rate, by name', () => {
    expect(() => read([null, null])).toThrow('no sample');
    expect(() => readTrace({ hz: 0, massG: [1], pumpOffS: null })).toThrow('hz');
  });

  it('never says NaN, whatever the scale sent', () => {
    const sample = fc.option(fc.double({ min: -200, max: 500, noNaN: true }), { freq: 4 });
    fc.assert(
      fc.property(
        fc.array(sample, { minLength: 1, maxLength: 120 }),
        fc.option(fc.double({ min: 0, max: 60, noNaN: true })),
        fc.constantFrom(1, 5, 10, 20),
        (massG, pumpOffS, hz) => {
          fc.pre(massG.some((mass) => mass !== null));
          const { signs, partial: _partial, ...numbers } = readTrace({ hz, massG, pumpOffS });
          for (const value of [...Object.values(numbers), ...signs.map(({ atS }) => atS)]) {
            expect(value === null || Number.isFinite(value)).toBe(true);
          }
          expect(numbers.yieldG).toBeGreaterThanOrEqual(0);
        },
      ),
      { seed: 20260306, numRuns: 500 },
    );
  });
});

describe('reading a shot as it runs', () => {
  it('says nothing while nothing has surely fallen', () => {
    expect(findFirstDropS({ hz: 10, massG: [] })).toBeNull();
    expect(findFirstDropS({ hz: 10, massG: Array<number>(100).fill(0.1) })).toBeNull();
    expect(findFirstDropS({ hz: 10, massG: Array<null>(100).fill(null) })).toBeNull();
  });

  it('reads a steady flow, none before it, and never one that runs backwards', () => {
    const flow = flowGps({ hz: 10, massG: made() });
    expect(flow[30]).toBe(0);
    expect(flow[150]).toBeCloseTo(1.5, 10);
    const massG: (number | null)[] = made();
    massG[100] = null;
    massG[120] = 0;
    expect(flowGps({ hz: 10, massG }).every((gps) => gps >= 0 && Number.isFinite(gps))).toBe(true);
  });

  it('expects what still drips after the stop', () => {
    // 14 s of 1.5 g/s are 21 g in the cup; about one second of flow is still to fall.
    expect(expectedFinalG({ hz: 10, massG: made().slice(0, 201) })).toBeCloseTo(22.5, 6);
    expect(lastMassG({ hz: 10, massG: [1, 2, null] })).toBe(2);
    expect(lastMassG({ hz: 10, massG: [] })).toBe(0);
  });
});

/** A scale that follows with a time constant and reads to 0.1 g. */
const lagging = (massG: readonly number[], lagS: number): number[] => {
  let shown = massG[0] ?? 0;
  return massG.map((mass) => {
    shown += (1 - Math.exp(-0.1 / lagS)) * (mass - shown);
    return Math.round(shown * 10) / 10;
  });
};
const jumping = (massG: readonly number[], atS: number, byG: number): number[] =>
  massG.map((mass, i) => (i / 10 >= atS ? mass + byG : mass));

describe('a restless scale', () => {
  const bySteps = fc.constantFrom(-1.2, -0.7, -0.3, 0.3, 0.7, 1.2);

  it('jumps a little, two seconds and more before the first drop, and the drop is found all the same', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 3.9, noNaN: true }), bySteps, (atS, byG) => {
        expect(Math.abs((read(jumping(noisy(made(), 0.04), atS, byG)).firstDropS ?? 99) - 6)).toBeLessThanOrEqual(0.4);
      }),
    );
  });

  it('jumps a little in mid-shot: the coffee is the same, and no channel is read into it', () => {
    fc.assert(
      fc.property(fc.double({ min: 9, max: 24, noNaN: true }), bySteps, (atS, byG) => {
        const reading = read(jumping(noisy(made(), 0.04), atS, byG));
        expect(reading.signs.map(({ kind }) => kind)).toEqual(['tareJump']);
        expect(Math.abs((reading.signs[0]?.atS ?? 0) - atS)).toBeLessThan(0.5);
        expect(Math.abs(reading.yieldG - 32.4)).toBeLessThan(0.3);
      }),
    );
  });

  it('lags by up to four tenths of a second', () => {
    for (const lagS of [0.1, 0.2, 0.4]) {
      expect(Math.abs((read(lagging(made(), lagS)).firstDropS ?? 99) - 6)).toBeLessThanOrEqual(0.4);
    }
  });

  it('shows single drops first: they are the first drop, and no jumps', () => {
    const drops = made().map((mass, i) => mass + 0.1 * Math.min(4, Math.max(0, Math.ceil((i - 47) / 3.5))));
    const reading = read(noisy(drops, 0.03));
    expect(Math.abs((reading.firstDropS ?? 99) - 4.8)).toBeLessThanOrEqual(0.4);
    expect(reading.signs).toEqual([]);
  });
});

describe('a channel that was open from the first drops', () => {
  const shot = (gps: number, dryS = 6) => ({ hz: 10, massG: noisy(made({ gps: () => gps, dryS }), 0.04) });
  const good = goodStart([1.45, 1.5, 1.55, 1.5].map((gps) => shot(gps)));
  const signs = (trace: { hz: number; massG: number[] }) =>
    readTrace({ ...trace, pumpOffS: 27 }, good).signs.map(({ kind }) => kind);

  it('shows in the flow, where the water took its usual time to come', () => {
    expect(signs(shot(2.4))).toEqual(['channel']);
    expect(signs(shot(1.55))).toEqual([]);
  });

  it('is not a coarser grind, which lets the water come sooner too', () => {
    expect(signs(shot(2.25, 4))).toEqual([]);
  });

  it('is told by three good shots, not by two', () => {
    expect(goodStart([shot(1.5), shot(1.5)])).toBeNull();
  });
});
