export { sessionKey, useSession, useSignOut, useWelcome } from './queries.ts';
export { SignInPage } from './SignInPage.tsx';
export { UnitsChoice } from './UnitsChoice.tsx';
