import { describe, expect, it } from 'vitest';
import { factKinds } from '@tempera/core/facts';
import { newFactSchema, wireMatchesCore } from './journal.ts';

const uuid = '5f46c70b-1f71-5cb0-b01c-594bf4c84ef9';
const purge = {
  id: '01a20868-a736-7000-8001-5118bb0dc595',
  siteId: uuid,
  at: '2031-05-04T06:30:10Z',
  skewMs: null,
  personId: uuid,
  grinderId: uuid,
  groupId: null,
  kind: 'purge',
  body: { purgeG: 12 },
};

describe('facts on the wire', () => {
  it('lets every kind of the core through, and no other', () => {
    // The values are types: a body that differs from the core's does not compile.
    expect(Object.keys(wireMatchesCore).sort()).toEqual([...factKinds].sort());
  });

  it('takes a proper fact', () => {
    expect(newFactSchema.safeParse(purge).success).toBe(true);
  });

  it.each([
    ['an unknown field', { ...purge, extra: 1 }],
    ['an unknown field in the body', { ...purge, body: { purgeG: 12, extra: 1 } }],
    ['a random id in place of a time-ordered one', { ...purge, id: '5f46c70b-1f71-4cb0-b01c-594bf4c84ef9' }],
    ['a time without a zone', { ...purge, at: '2031-05-04T06:30:10' }],
    ['a number as text', { ...purge, body: { purgeG: '12' } }],
    ['a number beyond its limits', { ...purge, body: { purgeG: 101 } }],
    ['a body of another kind', { ...purge, kind: 'lock' }],
    [
      'a correction of nothing',
      { ...purge, kind: 'correction', body: { factId: purge.id, withdrawn: false, shot: {} } },
    ],
  ])('refuses %s', (_what, fact) => {
    expect(newFactSchema.safeParse(fact).success).toBe(false);
  });

  it('says in one sentence what to do', () => {
    const refused = newFactSchema.safeParse({ ...purge, body: { purgeG: 101 } });
    expect(refused.error?.issues[0]?.message).toBe('A purge lies between 0 and 100 g. Check the number and its unit.');
  });
});
