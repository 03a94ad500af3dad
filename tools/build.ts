import { ensureBuilt } from './setup/builder.ts';

/** `npm run build`: server and web app, for production. */
export async function main(): Promise<void> {
  await ensureBuilt();
}
