import { PROOF_HOLDS_MIN } from '@tempera/contract/route';
import type { Session } from '@tempera/contract/team';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import type { Request } from 'express';

/** Finds out who asks, by what the request carries; null: nobody who is known. */
export type Identify = (req: Request) => Promise<Session | null>;

/** Whether this person's last PIN stands for what was done at `atMs`, ms since the epoch. */
export const isProven = ({ provenAt }: Pick<Session, 'provenAt'>, atMs: number): boolean =>
  provenAt !== undefined && atMs - Date.parse(provenAt) <= PROOF_HOLDS_MIN * MS_PER_MINUTE;
