export { journalRoom } from './room.ts';
export { flawWord, jobWord, kindWord } from './words.ts';
