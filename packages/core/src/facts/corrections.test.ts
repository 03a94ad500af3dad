import { describe, expect, it } from 'vitest';
import { asCorrected } from './corrections.ts';
import { factMaker } from './testFacts.ts';

describe('facts as they now stand', () => {
  it('folds corrections into what they correct, the latest winning', () => {
    const make = factMaker();
    const shot = make('shot', { timeS: 22 });
    const first = make('correction', { factId: shot.id, shot: { timeS: 27, flaw: 'channel' } });
    const second = make('correction', { factId: shot.id, shot: { flaw: null } });
    // In whatever order they arrive.
    expect(asCorrected([second, shot, first])).toEqual([
      expect.objectContaining({ id: shot.id, body: expect.objectContaining({ timeS: 27, flaw: null }) }),
    ]);
  });

  it('leaves out what was withdrawn, of any kind, and takes it back again', () => {
    const make = factMaker();
    const lock = make('lock');
    const gone = make('correction', { factId: lock.id, withdrawn: true });
    expect(asCorrected([lock, gone])).toEqual([]);
    const back = make('correction', { factId: lock.id, withdrawn: false });
    expect(asCorrected([lock, gone, back])).toHaveLength(1);
  });

  it('ignores a correction that points nowhere', () => {
    const make = factMaker();
    const shot = make('shot');
    expect(asCorrected([shot, make('correction', { factId: 'nobody', withdrawn: true })])).toEqual([shot]);
  });
});
