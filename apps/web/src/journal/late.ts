export { JournalPage } from './JournalPage.tsx';
