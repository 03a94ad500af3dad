import react from '@vitejs/plugin-react';
import { build, type Rolldown } from 'vite';

/** Libraries that change seldom: what a device has of them stays good when the app is built anew. */
const libraries = [
  { name: 'react', test: /node_modules[\\/](react|react-dom|scheduler|react-router)[\\/]/ },
  { name: 'mantine', test: /node_modules[\\/]@mantine[\\/](core|hooks)[\\/]/ },
  { name: 'query', test: /node_modules[\\/](@tanstack|idb-keyval)[\\/]/ },
  { name: 'zod', test: /node_modules[\\/]zod[\\/]/ },
];

/** The views that a bar opens all day, the first one first; each needs what those before it need, and some more. */
const FIRST = ['/bar/HomePage.tsx', '/calibration/BenchPage.tsx', '/opening/OpeningPage.tsx'];

type Chunk = Rolldown.OutputChunk;

/** Chunks that are loaded with these, themselves included. */
function loadedWith(chunks: ReadonlyMap<string, Chunk>, begin: readonly Chunk[]): Set<Chunk> {
  const loaded = new Set<Chunk>();
  const add = (chunk: Chunk | undefined): void => {
    if (!chunk || loaded.has(chunk)) return;
    loaded.add(chunk);
    for (const file of chunk.imports) add(chunks.get(file));
  };
  begin.forEach(add);
  return loaded;
}

/**
 * In which pieces the app is fetched. By itself the bundler makes one of every set of modules that the same pages share, seventy for
 * a bench, and asking for each costs a tablet several milliseconds. Built once to see what is loaded with what, those that stand
 * together on the views of the day are put together: `frame` with the first script, `home` with the home, `judgement` with bench and
 * opening, `run` with the opening alone.
 */
export async function pieces(define: Record<string, string>): Promise<Rolldown.CodeSplittingGroup[]> {
  const built = await build({
    configFile: false,
    root: import.meta.dirname,
    logLevel: 'silent',
    define,
    plugins: [react()],
    worker: { format: 'es' },
    build: { write: false, minify: false, rolldownOptions: { output: { codeSplitting: { groups: libraries } } } },
  });
  const { output } = built as Rolldown.RolldownOutput;
  const chunks = new Map(output.flatMap((one) => (one.type === 'chunk' ? [[one.fileName, one] as const] : [])));
  const all = [...chunks.values()];
  const main = all.filter(({ isEntry }) => isEntry);
  const [home = [], bench = [], opening = []] = FIRST.map((page) =>
    all.filter(({ facadeModuleId }) => facadeModuleId?.endsWith(page)),
  );
  const frame = loadedWith(chunks, main);
  const onHome = loadedWith(chunks, home);
  const onBench = loadedWith(chunks, bench);
  const onOpening = loadedWith(chunks, opening);
  const pieceOf = new Map<string, string>();
  for (const chunk of all) {
    // A page keeps a piece of its own: it is not fetched where only what it shares is needed.
    if (chunk.isEntry || chunk.isDynamicEntry || libraries.some(({ name }) => chunk.name === name)) continue;
    const name = frame.has(chunk)
      ? 'frame'
      : onHome.has(chunk)
        ? 'home'
        : onOpening.has(chunk)
          ? onBench.has(chunk)
            ? 'judgement'
            : 'run'
          : null;
    if (name !== null) for (const id of chunk.moduleIds) pieceOf.set(id, name);
  }
  const names = ['frame', 'home', 'judgement', 'run'];
  return [
    ...libraries,
    ...names.map((name) => ({
      name,
      test: (id: string) => pieceOf.get(id) === name,
      includeDependenciesRecursively: false,
    })),
  ];
}
