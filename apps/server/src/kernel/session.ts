import type { Session } from '@tempera/contract/team';
import type { Request } from 'express';

/** Finds out who asks, by what the request carries; null: nobody who is known. */
export type Identify = (req: Request) => Promise<Session | null>;
