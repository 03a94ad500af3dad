export { calibrationEntities } from './entities.ts';
export { memoryUpTo } from './memory.ts';
export { calibrationRoutes } from './routes.ts';
