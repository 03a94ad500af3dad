import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { spread } from './spread.ts';

const WIDTH = 200;

describe('labels beside a counter', () => {
  it('stand where they belong as long as there is room', () => {
    const places = spread(
      [
        { id: 'a', atPx: 150 },
        { id: 'b', atPx: 500 },
      ],
      WIDTH,
      1_000,
    );
    expect(places.get('a')).toEqual({ atPx: 150, row: 0 });
    expect(places.get('b')).toEqual({ atPx: 500, row: 0 });
  });

  it('of two grinders side by side share what they are moved by', () => {
    const places = spread(
      [
        { id: 'right', atPx: 480 },
        { id: 'left', atPx: 420 },
      ],
      WIDTH,
      1_000,
    );
    expect([places.get('left')?.atPx, places.get('right')?.atPx]).toEqual([350, 550]);
  });

  it('never lie over one another nor past the ends', () => {
    const at = fc.array(fc.integer({ min: 0, max: 1_200 }), { minLength: 1, maxLength: 14 });
    fc.assert(
      fc.property(at, fc.integer({ min: 210, max: 1_200 }), (atPx, withinPx) => {
        const labels = atPx.map((px, i) => ({ id: String(i), atPx: Math.min(px, withinPx) }));
        const places = [...spread(labels, WIDTH, withinPx)];
        expect(places).toHaveLength(labels.length);
        for (const [, { atPx: middle, row }] of places) {
          const inRow = places.filter(([, place]) => place.row === row).map(([, place]) => place.atPx);
          const near = inRow.filter((other) => Math.abs(other - middle) < WIDTH - 1e-6);
          expect(near).toHaveLength(1);
          expect(middle).toBeGreaterThanOrEqual(WIDTH / 2 - 1e-6);
          expect(middle).toBeLessThanOrEqual(withinPx - WIDTH / 2 + 1e-6);
        }
      }),
    );
  });
});
