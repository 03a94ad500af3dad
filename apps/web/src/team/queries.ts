import type { AskedOf } from '@tempera/contract/routes';
import type { NewCafe, Session } from '@tempera/contract/team';
import type { Units } from '@tempera/core/house';
import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call, Unreachable } from '../kernel/api.ts';
import { endSession, sessionKey, standsHere } from '../kernel/session.ts';
import { useSheets } from '../kernel/sheets.ts';

/** Names to sign in with, and the demo's PINs. */
export function useWelcome() {
  return useQuery({ queryKey: ['welcome'], queryFn: () => call('GET /welcome'), staleTime: 300_000 });
}

function forgetAllButWelcome(client: QueryClient): void {
  client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'welcome' && query.queryKey[0] !== 'session' });
}

/** Whoever comes in, by whatever way, stands here from then on. */
export function useBegin<T = void>(begin: (input: T) => Promise<Session>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: begin,
    onSuccess: (session) => {
      // Whoever stood here already goes on with what is on the page.
      if (client.getQueryData<Session | null>(sessionKey)?.person.id === session.person.id)
        void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' });
      else forgetAllButWelcome(client);
      standsHere(client, session);
    },
  });
}

export const useSignIn = () =>
  useBegin((input: { personId: string; pin: string }) => call('POST /session', { body: input }));

/** Sets up the first café of an empty server; its head barista is signed in. */
export const useSetUp = () => useBegin((cafe: NewCafe) => call('POST /cafe', { body: cafe }));

/** What this person reads and types in from now on. */
export function useChangeUnits() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (units: Units) => call('PUT /session/units', { body: units }),
    onSuccess: (session) => standsHere(client, session),
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: endSession,
    onSettled: (_done, failed) => {
      // While the server is gone the next one goes on with what this tablet knows of the bar: it cannot be read again.
      if (!(failed instanceof Unreachable)) forgetAllButWelcome(client);
      standsHere(client, null);
    },
  });
}

/** A first PIN, by the code that was handed out; signed in with it. */
export const useFirstPin = () =>
  useBegin((input: { personId: string; code: string; pin: string }) => call('POST /session/first', { body: input }));

/** Everybody who was ever in the house: names of old entries too. */
export function usePeople() {
  const { data } = useSheets('person');
  return useMemo(() => (data ?? []).map(({ id, retired, sheet }) => ({ id, retired, ...sheet })), [data]);
}

const accessKey = ['team', 'access'] as const;

/** Who has a PIN, and who a code; nothing is asked for whoever may not know. */
export function useAccess(may: boolean) {
  return useQuery({ queryKey: accessKey, queryFn: () => call('GET /team/access'), enabled: may });
}

/** A code to hand out. It is shown once. */
export function useHandCode() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => call('POST /team/people/{id}/code', { params: { id } }),
    onSuccess: () =>
      client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] === 'team' || queryKey[0] === 'welcome' }),
  });
}

/** Another PIN of one's own. */
export function useChangePin() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: { pin: string; newPin: string }) => call('PUT /session/pin', { body }),
    onSuccess: () => client.invalidateQueries({ queryKey: ownSessionsKey }),
  });
}

const ownSessionsKey = ['team', 'ownSessions'] as const;

/** Where this person is signed in. */
export const useOwnSessions = () => useQuery({ queryKey: ownSessionsKey, queryFn: () => call('GET /session/own') });

/** Ends every other session of this person. */
export function useEndOthers() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call('DELETE /session/others'),
    onSuccess: () => client.invalidateQueries({ queryKey: ownSessionsKey }),
  });
}

/** A second person's yes, for what is written in the next minutes. */
export const useGiveYes = () =>
  useMutation({ mutationFn: (body: { personId: string; pin: string }) => call('POST /yes', { body }) });

/** Whoever is signed in gives their PIN once more, or their password, or a passkey. */
export function useProveAgain() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: AskedOf<'POST /session/proof'>['body']) => call('POST /session/proof', { body }),
    onSuccess: (session) => standsHere(client, session),
  });
}

/** A head or the office from where no device is enrolled. */
export function useSignInAway() {
  const client = useQueryClient();
  return useBegin(async (body: { name: string; password: string }) => {
    const session = await call('POST /session/away', { body });
    // Whoever is signed in knows the names of their own house.
    await client.invalidateQueries({ queryKey: ['welcome'] });
    return session;
  });
}

/** A long password of one's own. */
export const useSetPassword = () =>
  useMutation({ mutationFn: (body: { pin: string; password: string }) => call('PUT /session/password', { body }) });

const devicesKey = ['team', 'devices'] as const;

/** The devices of the house. */
export const useDevices = () => useQuery({ queryKey: devicesKey, queryFn: () => call('GET /team/devices') });

function useDeviceChange<I, T>(change: (input: I) => Promise<T>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: devicesKey }),
        client.invalidateQueries({ queryKey: ['welcome'] }),
      ]),
  });
}

/** Enrols the device in hand. */
export const useEnrolHere = () => useDeviceChange((name: string) => call('POST /team/devices', { body: { name } }));

/** A code for another device, shown once. */
export const useDeviceCode = () =>
  useDeviceChange((name: string) => call('POST /team/devices/code', { body: { name } }));

/** Strikes a device off. */
export const useStrikeOff = () =>
  useDeviceChange((id: string) => call('DELETE /team/devices/{id}', { params: { id } }));

/** This device enrols itself by a code. */
export const useEnrolByCode = () => useDeviceChange((code: string) => call('POST /device', { body: { code } }));
