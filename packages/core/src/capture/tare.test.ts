import { describe, expect, it } from 'vitest';
import { tared } from './tare.ts';

const shot = (onScaleG: number) => ({
  hz: 10,
  massG: Array.from({ length: 200 }, (_, i) => onScaleG + Math.max(0, i / 10 - 5) * 1.6),
});

describe('a cup on the scale', () => {
  it.each([
    ['an untared cup', 62],
    ['a lighter cup than the tared one', -14],
  ])('%s is taken off, sample for sample', (_, onScaleG) => {
    const { massG } = tared(shot(onScaleG));
    expect(massG[0]).toBeCloseTo(0, 9);
    expect(massG.at(-1)).toBeCloseTo(14.9 * 1.6, 9);
  });

  it('leaves a tared scale as it is, with its noise', () => {
    const trace = shot(0.3);
    expect(tared(trace)).toBe(trace);
  });

  it('is not fooled by a knock in the first second, by lost samples, or by nothing at all', () => {
    const knocked = shot(0);
    knocked.massG[2] = 40;
    knocked.massG[3] = 40;
    expect(tared(knocked)).toBe(knocked);
    const lost = { hz: 10, massG: [null, null, 62, 62.1, null, ...Array.from({ length: 20 }, () => 62)] };
    expect(tared(lost).massG.slice(0, 3)).toEqual([null, null, 0]);
    expect(tared({ hz: 10, massG: [] }).massG).toEqual([]);
  });
});
