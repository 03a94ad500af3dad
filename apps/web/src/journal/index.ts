export { factLine } from './factLine.ts';
export { journalRoom } from './room.ts';
export { changeDone, happeningWord, jobWords, runName, stepLine } from './stepLine.ts';
export { flawWord, kindWord, sightingWord } from './words.ts';
