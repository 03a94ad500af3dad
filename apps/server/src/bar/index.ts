export { barRoutes } from './routes.ts';
export {
  barEntities,
  CounterEntity,
  FixtureEntity,
  GrinderEntity,
  GroupEntity,
  MachineEntity,
  type GrinderRow,
} from './entities.ts';
