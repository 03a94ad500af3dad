export { useSignOut, useWelcome } from './queries.ts';
export { teamRoom } from './room.ts';
export { SignInPage } from './SignInPage.tsx';
export { UnitsChoice } from './UnitsChoice.tsx';
