import { expect, it } from 'vitest';
import { together, type Outcome } from '../src/kernel/together.ts';

/** Does what it is told to do when it is let, and remembers what was done in one go. */
function slowly(most: number) {
  const goes: number[][] = [];
  const lets: (() => void)[] = [];
  const ask = together(most, async (asked: readonly number[]): Promise<Outcome<string>[]> => {
    goes.push([...asked]);
    await new Promise<void>((resolve) => lets.push(resolve));
    if (asked.includes(13)) throw new Error('the whole of it failed');
    return asked.map((one) => (one < 0 ? { failed: new Error(`not ${one}`) } : { done: `did ${one}` }));
  });
  const letGo = async (): Promise<void> => {
    lets.shift()?.();
    // Until the next one is under way.
    await new Promise((resolve) => setTimeout(resolve));
  };
  return { goes, ask, letGo };
}

it('does at once what comes alone, and together what comes meanwhile, in its order and no more than is allowed', async () => {
  const { goes, ask, letGo } = slowly(3);
  const asked = [1, 2, 3, 4, 5].map(ask);
  expect(goes).toEqual([[1]]);
  await letGo();
  expect(goes).toEqual([[1], [2, 3, 4]]);
  await letGo();
  await letGo();
  expect(await Promise.all(asked)).toEqual(['did 1', 'did 2', 'did 3', 'did 4', 'did 5']);
  const later = ask(6);
  expect(goes.at(-1)).toEqual([6]);
  await letGo();
  expect(await later).toBe('did 6');
});

it('tells each its own outcome, and goes on after a failure of all', async () => {
  const { ask, letGo } = slowly(3);
  const asked = Promise.allSettled([1, 2, -3, 4, 13, 5].map(ask));
  for (let go = 0; go < 3; go += 1) await letGo();
  expect((await asked).map((one) => (one.status === 'fulfilled' ? one.value : String(one.reason)))).toEqual([
    'did 1',
    'did 2',
    'Error: not -3',
    'did 4',
    'Error: the whole of it failed',
    'Error: the whole of it failed',
  ]);
  const later = ask(6);
  await letGo();
  expect(await later).toBe('did 6');
});
