import { z } from 'zod';
import { entityId, instant } from './common.ts';
import { name } from './field.ts';

/** Bytes in base64url, as browsers and authenticators exchange them (WebAuthn level 3, section 5). */
const MOST_LETTERS = 20_000;
const bytes = z.string().max(MOST_LETTERS);
const credential = { id: bytes, rawId: bytes, type: z.literal('public-key') };

/** What a browser is told to make or use a passkey with; it goes from server to browser untouched. */
export const passkeyOptionsSchema = z.looseObject({ challenge: z.string() }).meta({ id: 'PasskeyOptions' });
/** What a browser is told to make or use a passkey with. */
export type PasskeyOptions = z.infer<typeof passkeyOptionsSchema>;

/** A passkey that was just made, and what it is on: "My phone". */
export const newPasskeySchema = z
  .strictObject({
    name,
    made: z.object({
      ...credential,
      response: z.object({
        clientDataJSON: bytes,
        attestationObject: bytes,
        transports: z.array(z.string().max(40)).max(10).default([]),
      }),
    }),
  })
  .meta({ id: 'NewPasskey' });
/** A passkey that was just made, and what it is on. */
export type NewPasskey = z.infer<typeof newPasskeySchema>;

/** Somebody shows that they hold a passkey. */
export const usedPasskeySchema = z
  .object({
    ...credential,
    response: z.object({ clientDataJSON: bytes, authenticatorData: bytes, signature: bytes }),
  })
  .meta({ id: 'UsedPasskey' });
/** Somebody shows that they hold a passkey. */
export type UsedPasskey = z.infer<typeof usedPasskeySchema>;

/** Passkeys of one's own, the newest first. */
export const ownPasskeysSchema = z
  .object({
    passkeys: z.array(z.object({ id: entityId, name: z.string(), madeAt: instant, usedAt: instant.nullable() })),
  })
  .meta({ id: 'OwnPasskeys' });
