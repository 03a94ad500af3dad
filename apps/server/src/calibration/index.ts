export { calibrationRoutes } from './routes.ts';
