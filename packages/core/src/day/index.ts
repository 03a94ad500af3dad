export { dayNumbers } from './dayNumbers.ts';
export { doseDueInService } from './doseDue.ts';
export { dueInService, lastHeard, rushIsOn, serviceAt } from './dueInService.ts';
export { serve, type Service, type ServiceAdvice } from './serve.ts';
export { ewma } from './controlChart.ts';
export { grinderHistory } from './grinderHistory.ts';
export type { HandsOffset } from './varianceSplit.ts';
export { lastOnMs, openNotes, stationChanges, waitingHandOver, type StationChanges } from './handOver.ts';
export { morningsOf, type Morning } from './mornings.ts';
