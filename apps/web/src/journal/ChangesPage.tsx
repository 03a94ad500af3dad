import { Button, Stack, Text, Title } from '@mantine/core';
import type { Changes } from '@tempera/contract/changes';
import { sheetPaths } from '@tempera/contract/sheetPaths';
import type { Session } from '@tempera/contract/team';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../kernel/api.ts';
import { moment } from '../kernel/format.ts';
import { keepsHouse } from '../kernel/sheets.ts';
import { changesKey } from './queries.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import classes from './JournalPage.module.css';

type Change = Changes['changes'][number];

/** What was changed of the house, its people and its doors: who, when, and from where. */
export function ChangesPage({ session }: { session: Session }) {
  const nowMs = useNow();
  const may = keepsHouse(session);
  const { data, error, refetch, hasNextPage, fetchNextPage, isFetching } = useInfiniteQuery({
    queryKey: changesKey,
    initialPageParam: null as string | null,
    queryFn: ({ pageParam }) =>
      call('GET /journal/changes', { query: pageParam === null ? {} : { before: pageParam } }),
    getNextPageParam: ({ nextBefore }) => nextBefore,
    enabled: may,
  });
  if (!may) return <Empty>Who came in and what was changed is for a head barista or the office to read.</Empty>;
  if (!data) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the changes" />;
  const changes = data.pages.flatMap((page) => page.changes);
  return (
    <Stack gap="md">
      <div>
        <Title order={1}>Changes and sign-ins</Title>
        <Text className="faint">
          The house book, the people and the doors. What happened at the bar is in the{' '}
          <Link to="/journal">journal</Link>.
        </Text>
      </div>
      {changes.length === 0 && <Empty>Nothing was changed yet.</Empty>}
      <table className={classes.lines}>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Who</th>
            <th scope="col">From</th>
            <th scope="col">What</th>
          </tr>
        </thead>
        <tbody>
          {changes.map((change) => (
            <tr key={change.id}>
              <td>{moment(Date.parse(change.at), session.site.timeZone, nowMs)}</td>
              <td>{change.by ?? 'nobody known'}</td>
              <td>{change.address ?? ''}</td>
              <td>
                <What change={change} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {hasNextPage && (
        <Button variant="default" mih={48} loading={isFetching} onClick={() => void fetchNextPage()}>
          Older ones
        </Button>
      )}
    </Stack>
  );
}

const doorWord: Partial<Record<Change['what'], (about: string) => string>> = {
  signedIn: (about) => `${about} signed in`,
  signedOut: (about) => `${about} signed out`,
  wrongPin: (about) => `A wrong PIN, code, password or passkey for ${about}`,
  lockedOut: (about) => `Too many wrong PINs for ${about}: made to wait`,
  firstPin: (about) => `${about} set a PIN by a code`,
  pinChanged: (about) => `${about} changed the PIN`,
  codeHanded: (about) => `A code was handed to ${about}`,
  passwordSet: (about) => `${about} set a password`,
  passkeyMade: (about) => `${about} made a passkey`,
  passkeyForgotten: (about) => `${about} removed a passkey`,
  provenAgain: (about) => `${about} gave their PIN once more`,
  deviceEnrolled: (about) => `${about} enrolled a device`,
  deviceStruckOff: (about) => `${about} struck a device off`,
  othersEnded: (about) => `${about} ended all other sign-ins`,
};

/** Where a thing's versions are compared. */
function pathOf({ what, aboutId }: Change): string | null {
  if (what === 'policies') return '/house/policies';
  if (what === 'plan') return '/plan';
  if (aboutId === null) return null;
  if (what === 'recipe') return `/house/recipes/${aboutId}`;
  if (what === 'person') return `/team/${aboutId}`;
  if (what === 'cafe') return '/house/cafe';
  if (what in pieces) return `/bar/${what}/${aboutId}`;
  if (what === 'drink') return `/house/drinks/${aboutId}`;
  if (what === 'coffee') return `/coffee/coffees/${aboutId}`;
  return what === 'bag' ? `/coffee/bags/${aboutId}` : null;
}
const pieces = { machine: 1, group: 1, grinder: 1, basket: 1, fixture: 1, counter: 1 };

const thingWord = (what: Change['what']): string =>
  ({ policies: 'The policies', plan: 'The plan of the bar', recipe: 'Recipe', cafe: 'The café' })[what as string] ??
  (what in sheetPaths ? `${what.charAt(0).toUpperCase()}${what.slice(1)}` : what);

/** One change in plain words, with the way to its comparison. */
function What({ change }: { change: Change }) {
  const { what, about, version, retired, reason } = change;
  const door = doorWord[what];
  if (door) return door(about);
  const path = pathOf(change);
  const name = [thingWord(what), about].filter(Boolean).join(' ');
  const did = retired ? 'taken out of use' : version === 1 ? 'first written' : `changed, version ${version ?? ''}`;
  return (
    <>
      {path === null ? name : <Link to={path}>{name}</Link>}: {did}
      {reason ? `: ${reason}` : ''}
    </>
  );
}
