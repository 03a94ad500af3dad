import { describe, expect, it } from 'vitest';
import type { CrossShot } from '../calibration/index.ts';
import { standingFacts } from '../facts/index.ts';
import { factMaker } from '../facts/testFacts.ts';
import { gaussian, seededRandom } from '../numbers/index.ts';
import { crossShots, diagnoseBar, groupVerdict } from './groupChecks.ts';

describe('grinder or group, from the shots of a morning', () => {
  const at = '2031-05-04T06:00:00Z';
  const make = factMaker(at);
  const target = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
  const bar = { recipes: { house: target, guest: target }, groups: ['1', '2', '3'] };
  const shot = (grinderId: string, groupId: string, timeS: number, check: boolean) => ({
    ...make('shot', { timeS, setting: 30, ...(check ? { check: true } : {}) }),
    grinderId,
    groupId,
  });
  const dialled = ['house', 'guest'].flatMap((grinderId, i) => {
    const shots = [shot(grinderId, String(i + 1), 27.3, false), shot(grinderId, String(i + 1), 27.7, false)];
    return [...shots, { ...make('lock', { shotIds: shots.map(({ id }) => id) }), grinderId, groupId: String(i + 1) }];
  });
  const slow = [shot('house', '3', 32.6, true), shot('guest', '3', 32.9, true)];

  it('hears the shots of the locks and the checks', () => {
    expect(crossShots(bar, standingFacts([...dialled, ...slow]), Date.parse(at))).toHaveLength(6);
    expect(crossShots(bar, standingFacts(slow), Date.parse(at))).toHaveLength(0);
  });

  it('names the group through which every grinder runs slow', () => {
    const { finding } = diagnoseBar(bar, crossShots(bar, standingFacts([...dialled, ...slow]), Date.parse(at)));
    expect(finding).toMatchObject({ kind: 'group', id: '3' });
    expect(finding.chance).toBeGreaterThan(0.8);
  });

  it('forgets what a group did before it was mended', () => {
    const mended = {
      id: 'mended',
      kind: 'step' as const,
      at: '2031-05-04T07:00:00Z',
      personId: 'ines',
      grinderId: null,
      groupId: null,
      body: { step: 'mended' as const, groupId: '3', what: 'screen' as const },
    };
    const heard = crossShots(bar, standingFacts([...dialled, ...slow, mended]), Date.parse(at));
    expect(heard.some(({ group }) => group === '3')).toBe(false);
  });

  const told = (kind: 'none' | 'unsure' | 'group' | 'grinder', id: string | null, offS: number, sdS: number) => ({
    grinders: [],
    groups: [{ id: '3', offS, sdS }],
    finding: { kind, id, chance: 0.8 },
    next: null,
  });
  it.each([
    ['nothing pulled', told('none', null, 0, 1), 0, 'unsure'],
    ['named by all shots', told('group', '3', 4, 1), 2, 'off'],
    ['a grinder is named', told('grinder', 'house', 0, 1), 2, 'grinder'],
    ['another group is named', told('group', '1', 0.2, 0.8), 1, 'fits'],
    ['well inside', told('none', null, 0.3, 0.8), 1, 'fits'],
    ['nothing named, and not surely inside', told('none', null, 0.9, 1), 1, 'unsure'],
    ['near the edge', told('unsure', null, 2.2, 1), 2, 'unsure'],
    ['near the edge after five shots, inside', told('unsure', null, 2.2, 1), 5, 'fits'],
    ['near the edge after five shots, outside', told('unsure', null, 2.9, 1), 5, 'off'],
  ] as const)('one group: %s', (_, diagnosis, shots, kind) => {
    expect(groupVerdict(diagnosis, '3', shots, 2.5).kind).toBe(kind);
  });

  /** Checks group 3 shot by shot, as the run does, where it differs by `slowLn` and every shot by 5 %. */
  function checked(seed: number, slowLn: number): { kind: string; shots: number } {
    const random = seededRandom(seed);
    const pull = (grinder: string, group: string): CrossShot => {
      const lnTime = Math.log(27.4) + (group === '3' ? slowLn : 0) + 0.05 * gaussian(random);
      return { grinder, group, doseG: 18, yieldG: 36, timeS: Math.exp(lnTime), firstDropS: null };
    };
    const shots = [pull('house', '1'), pull('house', '1'), pull('guest', '2')];
    for (let own = 0; ; own += 1) {
      const diagnosis = diagnoseBar(bar, shots);
      const { kind } = groupVerdict(diagnosis, '3', own, 2.5);
      if (kind !== 'unsure') return { kind, shots: own };
      shots.push(pull(diagnosis.next?.grinder ?? 'house', '3'));
    }
  }
  const CHECKS = 200;
  const checksOf = (slowLn: number) => Array.from({ length: CHECKS }, (_, seed) => checked(seed + 1, slowLn));
  const share = (checks: { kind: string }[], kind: string): number =>
    checks.filter((check) => check.kind === kind).length / checks.length;

  it('hardly ever lets a group through that is a quarter slow, nor one a sixth slow more than one time in four', () => {
    expect(share(checksOf(Math.log(1.25)), 'off')).toBeGreaterThanOrEqual(0.97);
    expect(share(checksOf(Math.log(1.16)), 'off')).toBeGreaterThanOrEqual(0.75);
  });

  it('clears a sound group with a shot or two, and blames hardly any', () => {
    const sound = checksOf(0);
    expect(share(sound, 'fits')).toBeGreaterThanOrEqual(0.98);
    expect(sound.reduce((sum, { shots }) => sum + shots, 0) / CHECKS).toBeLessThan(1.5);
  });
});
