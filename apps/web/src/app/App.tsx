import { useQueryClient } from '@tanstack/react-query';
import { Suspense, useEffect } from 'react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { afterFirstPage, FirstPage } from '../kernel/afterFirst.ts';
import { useOutbox } from '../kernel/facts.tsx';
import { useLocked } from '../kernel/lock.ts';
import { unconfirmedId, useSession } from '../kernel/session.ts';
import { SlotsContext } from '../kernel/slots.tsx';
import { useUnits } from '../kernel/units.ts';
import { SignInPage } from '../team/index.ts';
import { Boundary } from '../ui/Boundary.tsx';
import { NotFoundPage } from '../ui/NotFoundPage.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { Frame } from './Frame.tsx';
import { fetchSoon, pages } from './pages.ts';
import { readSoon } from './readSoon.ts';
import { slots } from './rooms.ts';

/** Every address of the app, as the rooms announce them. */
export function App() {
  const { data: session, isPending, error, refetch } = useSession();
  const outbox = useOutbox();
  const client = useQueryClient();
  const units = useUnits();
  const locked = useLocked();
  const { pathname } = useLocation();
  const personId = session?.person.id ?? null;

  // What somebody writes by their name alone is told as unconfirmed, and waits here for their PIN.
  const isNamed = personId !== null && personId === unconfirmedId();
  useEffect(() => {
    outbox.signedIn(isNamed ? null : personId);
    outbox.named(isNamed ? personId : null);
  }, [outbox, personId, isNamed]);
  useEffect(() => {
    if (personId === null || locked) return undefined;
    const off = [afterFirstPage(fetchSoon), readSoon(client)];
    return () => {
      for (const stop of off) stop();
    };
  }, [personId, locked, client]);

  if (isPending) return <Loading what="the bar" />;
  // Who stood here stands here still while the server is gone: only where nobody is known yet is there nothing to show.
  if (session === undefined) return <Failed error={error} onRetry={() => void refetch()} />;
  if (session === null) {
    return (
      <Frame session={null}>
        <SignInPage key={pathname} />
        <FirstPage />
      </Frame>
    );
  }
  return (
    <SlotsContext value={slots}>
      <Frame key={JSON.stringify([personId, units])} session={session}>
        <Boundary at={pathname}>
          <Suspense fallback={<Loading what="the page" />}>
            <Routes>
              {pages.map(({ path, Page }) => (
                <Route key={path} path={path} element={<Page session={session} />} />
              ))}
              <Route path="/sign-in" element={<Navigate to="/" replace />} />
              <Route path="*" element={<NotFoundPage />} />
            </Routes>
            <FirstPage />
          </Suspense>
        </Boundary>
      </Frame>
    </SlotsContext>
  );
}
