import { lazy, Suspense, useState, type ComponentType } from 'react';

/** A part in a piece of code of its own, which may be fetched before it is drawn. */
export type Piece<P extends object> = ComponentType<P> & { fetch?: () => Promise<unknown> };

/** Loads it once, however many ask; what failed is tried again by the next one. */
export function fetchedOnce<T>(load: () => Promise<T>): () => Promise<T> {
  let fetched: Promise<T> | null = null;
  return () =>
    (fetched ??= load().catch((error: unknown) => {
      fetched = null;
      throw error;
    }));
}

/** A part that leads its page: the page waits for its code, so that nothing already drawn moves from under a finger. */
export function withPage<P extends object>(load: () => Promise<ComponentType<P>>): Piece<P> {
  let here: ComponentType<P> | null = null;
  const fetch = fetchedOnce(async () => (here = await load()));
  const Awaited = lazy(async () => ({ default: await fetch() })) as ComponentType<P>;
  function Part(props: P) {
    // What is here already is drawn at once: even a promise kept long ago takes the page that stands away for a moment.
    const [Drawn] = useState(() => here ?? Awaited);
    return <Drawn {...props} />;
  }
  return Object.assign(Part, { fetch });
}

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
