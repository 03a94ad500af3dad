export { barRoutes } from './routes.ts';
export {
  barEntities,
  BasketEntity,
  CounterEntity,
  FixtureEntity,
  GrinderEntity,
  GroupEntity,
  MachineEntity,
  type GrinderRow,
} from './entities.ts';
