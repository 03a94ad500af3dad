import { lazy, Suspense, type ComponentType } from 'react';

/** A part that leads its page: the page waits for its code, so that nothing already drawn moves from under a finger. */
export const withPage = <P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> =>
  lazy(async () => ({ default: await load() }));

/** A part whose code is fetched when it is first drawn; until then nothing stands there. */
export function later<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Part = withPage(load);
  return function Later(props: P) {
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}
