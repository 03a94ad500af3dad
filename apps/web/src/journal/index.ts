export { journalRoom } from './room.ts';
export { jobWord } from './stepLine.ts';
export { flawWord, kindWord } from './words.ts';
