export { addFactToBench } from './queries.ts';
export { adviceTitle } from './words.ts';
