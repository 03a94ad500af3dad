import { lazy, Suspense, useEffect } from 'react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { HomePage } from '../bar/index.ts';
import { useSession } from '../team/index.ts';
import { SignInPage } from '../team/index.ts';
import { speakIn } from '../ui/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useOutbox } from './facts.tsx';
import { Frame } from './Frame.tsx';
import { NotFoundPage } from './NotFoundPage.tsx';
import { PageBoundary } from './PageBoundary.tsx';

// The home comes first. The bench is fetched as soon as it stands, so that a tap on a grinder waits for nothing, not even
// for a network that is gone by then; the office side comes when it is asked for.
const bar = () => import('../bar/late.ts');
const house = () => import('../house/late.ts');
const coffee = () => import('../coffee/late.ts');
const bench = () => import('../calibration/late.ts');
const opening = () => import('../opening/late.ts');
const OpeningPage = lazy(async () => ({ default: (await opening()).OpeningPage }));
const TimelinePage = lazy(async () => ({ default: (await opening()).TimelinePage }));
const SignOffPage = lazy(async () => ({ default: (await opening()).SignOffPage }));
const BenchPage = lazy(async () => ({ default: (await bench()).BenchPage }));
const ChooseGroupPage = lazy(async () => ({ default: (await bench()).ChooseGroupPage }));
const JournalPage = lazy(async () => ({ default: (await import('../journal/late.ts')).JournalPage }));
const PlanPage = lazy(async () => ({ default: (await bar()).PlanPage }));
const PiecesPage = lazy(async () => ({ default: (await bar()).PiecesPage }));
const PiecePage = lazy(async () => ({ default: (await bar()).PiecePage }));
const RecipesPage = lazy(async () => ({ default: (await house()).RecipesPage }));
const RecipePage = lazy(async () => ({ default: (await house()).RecipePage }));
const RecipeEditPage = lazy(async () => ({ default: (await house()).RecipeEditPage }));
const DrinksPage = lazy(async () => ({ default: (await house()).DrinksPage }));
const DrinkSheetPage = lazy(async () => ({ default: (await house()).DrinkSheetPage }));
const PoliciesPage = lazy(async () => ({ default: (await house()).PoliciesPage }));
const WallCardPage = lazy(async () => ({ default: (await house()).WallCardPage }));
const CafePage = lazy(async () => ({ default: (await house()).CafePage }));
const CoffeePage = lazy(async () => ({ default: (await coffee()).CoffeePage }));
const BagsPage = lazy(async () => ({ default: (await coffee()).BagsPage }));
const UsePage = lazy(async () => ({ default: (await coffee()).UsePage }));
const CoffeeSheetPage = lazy(async () => ({ default: (await coffee()).CoffeeSheetPage }));
const BagSheetPage = lazy(async () => ({ default: (await coffee()).BagSheetPage }));

/** Every address of the app. */
export function App() {
  const { data: session, isPending, error, refetch } = useSession();
  const outbox = useOutbox();
  const { pathname } = useLocation();
  const personId = session?.person.id ?? null;

  useEffect(() => outbox.signedIn(personId), [outbox, personId]);
  useEffect(() => {
    if (personId !== null) void bench().catch(() => undefined);
  }, [personId]);

  if (isPending) return <Loading what="the bar" />;
  if (error) return <Failed error={error} onRetry={() => void refetch()} />;
  if (session === null) {
    return (
      <Frame session={null}>
        <SignInPage key={pathname} />
      </Frame>
    );
  }
  // Before anything is drawn: numbers are written as this person reads them.
  speakIn(session.units);
  return (
    <Frame key={JSON.stringify(session.units)} session={session}>
      <PageBoundary at={pathname}>
        <Suspense fallback={<Loading what="the page" />}>
          <Routes>
            <Route path="/" element={<HomePage session={session} />} />
            <Route path="/bench/:grinderId" element={<ChooseGroupPage />} />
            <Route path="/bench/:grinderId/:groupId" element={<BenchPage session={session} />} />
            <Route path="/opening" element={<OpeningPage session={session} />} />
            <Route path="/opening/plan" element={<TimelinePage session={session} />} />
            <Route path="/opening/sign-off" element={<SignOffPage session={session} />} />
            <Route path="/plan" element={<PlanPage session={session} />} />
            <Route path="/bar" element={<PiecesPage session={session} />} />
            <Route path="/bar/:kind/:id" element={<PiecePage session={session} />} />
            <Route path="/coffee" element={<CoffeePage session={session} />} />
            <Route path="/coffee/bags" element={<BagsPage session={session} />} />
            <Route path="/coffee/bags/:id" element={<BagSheetPage session={session} />} />
            <Route path="/coffee/coffees/:id" element={<CoffeeSheetPage session={session} />} />
            <Route path="/coffee/use" element={<UsePage session={session} />} />
            <Route path="/house" element={<RecipesPage session={session} />} />
            <Route path="/house/recipes/new" element={<RecipeEditPage session={session} />} />
            <Route path="/house/recipes/:recipeId" element={<RecipePage session={session} />} />
            <Route path="/house/recipes/:recipeId/edit" element={<RecipeEditPage session={session} />} />
            <Route path="/house/drinks" element={<DrinksPage session={session} />} />
            <Route path="/house/drinks/:id" element={<DrinkSheetPage session={session} />} />
            <Route path="/house/policies" element={<PoliciesPage session={session} />} />
            <Route path="/house/wall" element={<WallCardPage session={session} />} />
            <Route path="/house/cafe" element={<CafePage session={session} />} />
            <Route path="/journal" element={<JournalPage session={session} />} />
            <Route path="/sign-in" element={<Navigate to="/" replace />} />
            <Route path="*" element={<NotFoundPage />} />
          </Routes>
        </Suspense>
      </PageBoundary>
    </Frame>
  );
}
