import { describe, expect, it } from 'vitest';
import { grinderOrGroup, type CrossShot } from './grinderOrGroup.ts';

const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
const recipes = { g1: recipe, g2: recipe, g3: recipe };
const groups = ['A', 'B', 'C'];
const shot = (grinder: string, group: string, timeS: number): CrossShot => ({
  grinder,
  group,
  doseG: 18,
  yieldG: 36,
  timeS,
  firstDropS: 6,
});
const check = (shots: CrossShot[]) => grinderOrGroup({ recipes, groups, shots });

describe('grinder or group?', () => {
  it('knows nothing before the first shot, and asks for one', () => {
    const { finding, next, grinders, groups: effects } = check([]);
    expect(finding.kind).toBe('unsure');
    expect(next).not.toBeNull();
    expect([...grinders, ...effects].every(({ offS }) => Math.abs(offS) < 1e-9)).toBe(true);
  });

  it('names the group when every grinder is slow there and nowhere else', () => {
    const {
      finding,
      next,
      groups: effects,
    } = check([
      shot('g1', 'A', 27.5),
      shot('g1', 'B', 31.6),
      shot('g2', 'B', 31.2),
      shot('g2', 'C', 27.1),
      shot('g3', 'B', 31),
      shot('g3', 'A', 27.6),
    ]);
    expect(finding).toMatchObject({ kind: 'group', id: 'B' });
    expect(finding.chance).toBeGreaterThan(0.9);
    expect(next).toBeNull();
    const b = effects.find(({ id }) => id === 'B');
    expect(b?.offS).toBeGreaterThan(2);
    expect(b?.sdS).toBeLessThan(1.5);
  });

  it('names the grinder when it is fast through every group', () => {
    const { finding } = check([
      shot('g2', 'A', 23.8),
      shot('g2', 'B', 23.9),
      shot('g1', 'A', 27.4),
      shot('g3', 'B', 27.3),
      shot('g2', 'C', 24),
    ]);
    expect(finding).toMatchObject({ kind: 'grinder', id: 'g2' });
  });

  it('names nothing where all holds', () => {
    const all = Object.keys(recipes).flatMap((grinder) => groups.map((group) => shot(grinder, group, 27.4)));
    expect(check(all).finding).toMatchObject({ kind: 'none', id: null });
  });

  it('does not take one slow pair for a slow group, and asks where the doubt is', () => {
    const { finding, next } = check([shot('g1', 'A', 27.4), shot('g1', 'B', 31.5)]);
    expect(finding.kind).toBe('unsure');
    // The slowness is B's or only that shot's: another grinder through B tells, and g1 through A again does not.
    expect(next?.group).toBe('B');
  });

  it('is not turned by one channel that nobody saw', () => {
    const sound = Object.keys(recipes).flatMap((grinder) => groups.map((group) => shot(grinder, group, 27.4)));
    expect(check([...sound, shot('g1', 'A', 17)]).finding.kind).toBe('none');
  });

  it('compares by what each recipe asks for', () => {
    const brewed = { doseG: 20, yieldG: 250, timeS: { min: 60, max: 70 }, doseToleranceG: null };
    const { grinders } = grinderOrGroup({
      recipes: { g1: recipe, brew: brewed },
      groups: ['A'],
      shots: [
        shot('g1', 'A', 27.4),
        { grinder: 'brew', group: 'A', doseG: 20, yieldG: 250, timeS: 64.8, firstDropS: 10 },
      ],
    });
    expect(grinders.every(({ offS }) => Math.abs(offS) < 0.2)).toBe(true);
  });

  it('refuses a shot of a grinder that has no recipe', () => {
    expect(() => check([shot('g9', 'A', 27)])).toThrow('g9');
  });
});
