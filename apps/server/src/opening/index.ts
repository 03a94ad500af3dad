export { openingRoutes } from './routes.ts';
