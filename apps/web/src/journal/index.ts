export { refreshJournal } from './queries.ts';
export { flawWord, jobWord, kindWord } from './words.ts';
