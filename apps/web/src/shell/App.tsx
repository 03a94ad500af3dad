import { useEffect } from 'react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { HomePage } from '../bar/index.ts';
import { BenchPage } from '../calibration/index.ts';
import { ChooseGroupPage } from '../calibration/index.ts';
import { PoliciesPage } from '../house/index.ts';
import { JournalPage } from '../journal/index.ts';
import { useSession } from '../team/index.ts';
import { SignInPage } from '../team/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useOutbox } from './facts.tsx';
import { Frame } from './Frame.tsx';
import { NotFoundPage } from './NotFoundPage.tsx';

/** Every address of the app. */
export function App() {
  const { data: session, isPending, error, refetch } = useSession();
  const outbox = useOutbox();
  const { pathname } = useLocation();
  const personId = session?.person.id ?? null;

  useEffect(() => outbox.signedIn(personId), [outbox, personId]);

  if (isPending) return <Loading what="the bar" />;
  if (error) return <Failed error={error} onRetry={() => void refetch()} />;
  if (session === null) {
    return (
      <Frame session={null}>
        <SignInPage key={pathname} />
      </Frame>
    );
  }
  return (
    <Frame session={session}>
      <Routes>
        <Route path="/" element={<HomePage session={session} />} />
        <Route path="/bench/:grinderId" element={<ChooseGroupPage />} />
        <Route path="/bench/:grinderId/:groupId" element={<BenchPage session={session} />} />
        <Route path="/house" element={<PoliciesPage session={session} />} />
        <Route path="/journal" element={<JournalPage session={session} />} />
        <Route path="/sign-in" element={<Navigate to="/" replace />} />
        <Route path="*" element={<NotFoundPage />} />
      </Routes>
    </Frame>
  );
}
