export { OpeningPage } from './OpeningPage.tsx';
export { SignOffPage } from './SignOffPage.tsx';
export { TimelinePage } from './TimelinePage.tsx';
