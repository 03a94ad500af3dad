export { factLine } from './factLine.ts';
export { journalRoom } from './room.ts';
export { changeDone, happeningWord, jobWords } from './stepLine.ts';
export { flawWord, kindWord, sightingWord } from './words.ts';
