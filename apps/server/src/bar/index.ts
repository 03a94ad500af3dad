export {
  BasketEntity,
  CounterEntity,
  FixtureEntity,
  GrinderEntity,
  GroupEntity,
  MachineEntity,
  type GrinderRow,
} from './entities.ts';
export { barRoom } from './room.ts';
