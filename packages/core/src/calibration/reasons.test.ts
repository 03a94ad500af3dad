import { describe, expect, it } from 'vitest';
import { advise } from './advise.ts';
import { aCase, aShot } from './testCases.ts';

const said = (...args: Parameters<typeof aCase>): string => advise(aCase(...args)).reasons.join(' ');

describe('reasons', () => {
  it('tell the normalised time and the miss, from the numbers', () => {
    expect(said({ shots: [aShot({ timeS: 22 })] })).toContain('it ran 22.0 s: 3.0 s too fast');
    expect(said({ shots: [aShot({ timeS: 33.5 })] })).toContain('it ran 33.5 s: 3.5 s too slow');
    expect(said({ shots: [aShot({ timeS: 27 })] })).toContain('it ran 27.0 s: inside 25-30 s');
  });

  it('say what a mark is worth, with its doubt, and what staying would be worth', () => {
    const words = said({ shots: [aShot({ timeS: 22 })] });
    expect(words).toMatch(/A mark is worth about \d\.\d s here, give or take \d\.\d s\./);
    expect(words).toMatch(/At 30 it is \d+ % likely to hold the window, at 28 it is \d+ %\./);
    expect(words).toMatch(/Purge \d+\.\d g/);
  });

  it('say why another shot tells more than a move', () => {
    const words = said({ since: null, shots: [aShot({ timeS: 26 })] });
    expect(words).toMatch(/\d+ % sure so far, the house asks 93 %: from here it takes about \d\.\d shots' worth/);
    const [here, moved] = [...words.matchAll(/about (\d\.\d) shots' worth/g)].map(([, cost]) => Number(cost));
    expect(here).toBeLessThanOrEqual(moved ?? 0);
  });

  it('count the sound shots of a lock', () => {
    expect(said({ shots: [aShot({ timeS: 27.3 }), aShot({ timeS: 27.5 })] })).toContain('2 sound shots at 30');
    expect(said({ since: { newBag: false, hours: 1 }, shots: [aShot({ timeS: 27.3 })] })).toContain(
      '1 sound shot at 30',
    );
  });

  it('name what stood in the way of evidence', () => {
    expect(said({ shots: [aShot({ fault: 'channel' })] })).toContain('channel');
    expect(said({ shots: [aShot({ fault: 'prep' })] })).toContain('not sound');
    expect(said({ shots: [aShot({ timeS: 50, fault: 'choke' })] })).toContain('choked');
    expect(said({ shots: [aShot({ doseG: 17.2 })] })).toContain('0.8 g under');
    const blend = [aShot({ timeS: 22 }), aShot({ setting: 28, purgedG: 0 })];
    expect(said({ shots: blend, retentionG: 8 })).toMatch(/\d+ % of that dose was ground at the old setting/);
    expect(said({ shots: [aShot()], standsAt: 27 })).toContain('moved to 27');
    expect(said({ since: null })).toContain('never held');
  });
});
