export { refreshJournal } from './queries.ts';
export { flawWord, kindWord } from './words.ts';
