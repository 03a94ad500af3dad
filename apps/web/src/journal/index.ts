export { journalRoom } from './room.ts';
export { jobWords } from './stepLine.ts';
export { flawWord, kindWord, sightingWord } from './words.ts';
