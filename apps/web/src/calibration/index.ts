export { addFactToBench } from './queries.ts';
export { memoryOf } from './barMemory.ts';
export { viewBench } from './viewBench.ts';
export { adviceTitle } from './words.ts';
