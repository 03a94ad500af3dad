export { usePeople, useSignOut, useWelcome } from './queries.ts';
export { teamRoom } from './room.ts';
export { NotSignedOff } from './NotSignedOff.tsx';
export { AskYes } from './AskYes.tsx';
export { ProofAgain } from './ProofAgain.tsx';
export { YesForm } from './YesForm.tsx';
export { PinPad, SignInPage } from './SignInPage.tsx';
export { Unconfirmed } from './Unconfirmed.tsx';
export { UnitsChoice } from './UnitsChoice.tsx';
