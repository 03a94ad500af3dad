import { z } from 'zod';
import type { Figure } from '../figure.ts';
import type { SignedIn } from '../http.ts';
import { inOwnProcess } from './ownProcess.ts';

/** Where facts are written to: through the server, or past it. */
export interface Target extends SignedIn {
  base: string;
  databaseUrl: string;
}

const ratesSchema = z.array(z.object({ clients: z.number(), raw: z.number(), served: z.number() }));
export type Rates = z.infer<typeof ratesSchema>;

/**
 * Facts a second through the server, beside the raw driver's inserts of the very rows; same table, same durability.
 */
export async function writeFigures(target: Target): Promise<Figure[]> {
  const rates = await inOwnProcess(new URL('writer.ts', import.meta.url), target, ratesSchema);
  return rates.flatMap(({ clients, raw, served }) => [
    { name: `facts a second by the raw driver, ${clients} at once`, value: raw, unit: '' },
    { name: `facts a second through the server, ${clients} at once`, value: served, unit: '' },
    { name: `their ratio, ${clients} at once`, value: served / raw, unit: '', aim: 'at least 0.4' },
  ]);
}
