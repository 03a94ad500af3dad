import { measureEngine } from './bench/engine/index.ts';
import { measureOpening } from './bench/opening.ts';
import { measureHttp } from './bench/http.ts';
import { asText, type Figure } from './bench/figure.ts';
import { measureAdvice } from './bench/advice.ts';
import { measureBundle } from './bench/bundle.ts';
import { measureLive } from './bench/live.ts';
import { measureMemory } from './bench/memory.ts';
import { measureScale } from './bench/scale/index.ts';
import { measureTrials } from './bench/trials.ts';
import { measureViews } from './bench/views.ts';
import { ensureBuilt } from './setup/builder.ts';
import { SetUpError } from './setup/problems.ts';

const benches: Record<string, () => Figure[] | Promise<Figure[]>> = {
  bundle: measureBundle,
  http: measureHttp,
  live: measureLive,
  memory: measureMemory,
  scale: measureScale,
  advice: measureAdvice,
  engine: measureEngine,
  opening: measureOpening,
  trials: measureTrials,
  views: measureViews,
};

/** `npm run bench [-- bundle|http|live|memory|scale|advice|engine|opening|trials|views] [--json]`: prints measured figures as a table or as JSON. */
export async function main(args: string[]): Promise<void> {
  const names = args.filter((arg) => arg !== '--json');
  const unknown = names.find((name) => !(name in benches));
  if (unknown !== undefined)
    throw new SetUpError(`No bench is called ${unknown}. There are: ${Object.keys(benches).join(', ')}.`);
  // The engine and its lines run from source; only the served app is built.
  if (names.length === 0 || names.some((name) => ['bundle', 'http', 'live', 'memory', 'scale', 'views'].includes(name)))
    await ensureBuilt();
  const figures: Figure[] = [];
  for (const [name, measure] of Object.entries(benches)) {
    if (names.length === 0 || names.includes(name)) figures.push(...(await measure()));
  }
  if (args.includes('--json')) process.stdout.write(`${JSON.stringify(figures, null, 2)}\n`);
  else process.stdout.write(`${asText(figures)}\n`);
}
