/** One of several that were asked for together: what it came to, or why it came to nothing. */
export type Outcome<R> = { done: R } | { failed: unknown };

/**
 * Does at once what is asked for alone, and together what is asked for meanwhile: where many ask, one statement serves several of
 * them, and nobody waits for company.
 * @param most how many are done in one go
 * @param go does them, and tells the outcome of each in their order
 */
export function together<T, R>(
  most: number,
  go: (asked: readonly T[]) => Promise<readonly Outcome<R>[]>,
): (one: T) => Promise<R> {
  const waiting: { one: T; settle: (outcome: Outcome<R>) => void }[] = [];
  let isUnderWay = false;
  const begin = async (): Promise<void> => {
    isUnderWay = true;
    while (waiting.length > 0) {
      const taken = waiting.splice(0, most);
      const outcomes = await go(taken.map(({ one }) => one)).catch((failed: unknown) => taken.map(() => ({ failed })));
      taken.forEach(({ settle }, i) => settle(outcomes[i] ?? { failed: new Error('nothing was told of its outcome') }));
    }
    isUnderWay = false;
  };
  return async (one) => {
    const outcome = await new Promise<Outcome<R>>((settle) => {
      waiting.push({ one, settle });
      if (!isUnderWay) void begin();
    });
    // What a statement threw is handed on as it was thrown.
    if ('failed' in outcome) throw outcome.failed;
    return outcome.done;
  };
}
