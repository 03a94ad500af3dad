export { useRecipesInForce } from './queries.ts';
