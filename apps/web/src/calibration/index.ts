export { addFactToBench } from './queries.ts';
export { adviceTitle } from './words.ts';
export { inBar } from './station.ts';
