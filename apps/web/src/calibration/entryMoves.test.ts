import { describe, expect, it } from 'vitest';
import { entryAfter, freshEntry, type EntryEvent, type ShotEntry } from './entryMoves.ts';

const start = freshEntry({ yield: '36.0', time: '26.4', drop: '', dose: '18.0' }, 'yield');
const after = (events: EntryEvent[], from: ShotEntry = start): ShotEntry => events.reduce(entryAfter, from);
const digits = (keys: string, decimals = 1): EntryEvent[] =>
  Array.from(keys, (digit): EntryEvent => ({ kind: 'digit', digit, decimals }));

describe('the keypad', () => {
  it.each([
    ['three digits write tenths', digits('346'), '34.6'],
    ['one digit begins anew, whatever stood there', digits('5'), '0.5'],
    ['whole grams where the scale shows no tenths', digits('235', 0), '235'],
    ['a slip is taken back digit by digit', [...digits('346'), { kind: 'back', decimals: 1 } as const], '3.4'],
    ['back on what stood there empties it', [{ kind: 'back', decimals: 1 } as const], ''],
    ['a tenth more', [{ kind: 'stepped', by: 0.1, decimals: 1 } as const], '36.1'],
    ['a gram less, from the aim', [{ kind: 'stepped', by: -1, decimals: 1 } as const], '35.0'],
    ['steps go on from what was typed', [...digits('346'), { kind: 'stepped', by: 0.1, decimals: 1 } as const], '34.7'],
    ['nothing falls under nothing', [...digits('5'), { kind: 'stepped', by: -1, decimals: 1 } as const], '0.0'],
    ['no longer than any number of the bar', digits('1234567'), '1234.5'],
  ])('%s', (_, events, text) => {
    expect(after(events).texts.yield).toBe(text);
  });

  it('writes where the focus is, and anew in each field', () => {
    const moved = after([...digits('346'), { kind: 'focused', field: 'drop' }, ...digits('61')]);
    expect(moved.texts).toMatchObject({ yield: '34.6', drop: '6.1' });
    const back = after([{ kind: 'focused', field: 'yield' }, ...digits('35')], moved);
    expect(back.texts.yield).toBe('3.5');
    // A tap on the field that is in focus already changes nothing.
    expect(after([{ kind: 'focused', field: 'yield' }], back)).toBe(back);
  });

  it('keeps what a keyboard types, right or wrong', () => {
    const typed = after([{ kind: 'typed', field: 'time', text: '2x,5' }, { kind: 'tried' }]);
    expect(typed).toMatchObject({ active: 'time', tried: true, texts: { time: '2x,5', yield: '36.0' } });
  });
});
