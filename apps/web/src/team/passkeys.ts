import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { UsedPasskey } from '@tempera/contract/passkeys';
import type { PublicKeyCredentialCreationOptionsJSON } from '@simplewebauthn/browser';
import { ApiProblem, call, sentenceOf, Unreachable } from '../kernel/api.ts';
import { useBegin } from './queries.ts';

const NUMBERS = /^[\d.]+$|^\[/;

/** Why this page can use no passkey, in a sentence; null: it can. Browsers give them to secure pages with a name only. */
export function noPasskeysHere(): string | null {
  if (!window.isSecureContext)
    return 'Passkeys need a secure page: the server needs a certificate (docs/operations.md says how).';
  if (typeof PublicKeyCredential === 'undefined') return 'This browser has no passkeys.';
  if (NUMBERS.test(window.location.hostname))
    return 'Passkeys need an address with a name: this page was opened by a number.';
  return null;
}

/** Asks the browser for a passkey of this address. @throws DOMException when nobody chooses one */
export async function askPasskey(): Promise<UsedPasskey> {
  const { startAuthentication } = await import('@simplewebauthn/browser');
  const options = await call('POST /session/passkey/options');
  const { id, rawId, response } = await startAuthentication({
    optionsJSON: options,
  });
  const { clientDataJSON, authenticatorData, signature } = response;
  return { id, rawId, type: 'public-key', response: { clientDataJSON, authenticatorData, signature } };
}

/** The sentence for whatever went wrong with a passkey: the browser's own are for its makers. */
export function passkeySentence(error: unknown): string {
  if (error instanceof ApiProblem || error instanceof Unreachable) return sentenceOf(error);
  return error instanceof Error && error.name === 'InvalidStateError'
    ? 'This device holds a passkey of yours already.'
    : 'No passkey was given. Try again, or choose another way.';
}

/** A head or the office comes in by a passkey. */
export function useSignInByPasskey() {
  const client = useQueryClient();
  return useBegin(async () => {
    const session = await call('POST /session/passkey', { body: await askPasskey() });
    // Whoever is signed in knows the names of their own house.
    await client.invalidateQueries({ queryKey: ['welcome'] });
    return session;
  });
}

const passkeysKey = ['team', 'passkeys'] as const;

/** Passkeys of one's own. */
export const useOwnPasskeys = () => useQuery({ queryKey: passkeysKey, queryFn: () => call('GET /session/passkeys') });

/** Makes a passkey on this device, under a name. */
export function useMakePasskey() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (name: string) => {
      const options = await call('POST /session/passkeys/options');
      const { startRegistration } = await import('@simplewebauthn/browser');
      const { id, rawId, response } = await startRegistration({
        optionsJSON: options as unknown as PublicKeyCredentialCreationOptionsJSON,
      });
      const { clientDataJSON, attestationObject, transports = [] } = response;
      const made = {
        id,
        rawId,
        type: 'public-key' as const,
        response: { clientDataJSON, attestationObject, transports },
      };
      return call('POST /session/passkeys', { body: { name, made } });
    },
    onSuccess: (own) => client.setQueryData(passkeysKey, own),
  });
}

/** A passkey of one's own opens nothing any more. */
export function useForgetPasskey() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => call('DELETE /session/passkeys/{id}', { params: { id } }),
    onSuccess: () => client.invalidateQueries({ queryKey: passkeysKey }),
  });
}
