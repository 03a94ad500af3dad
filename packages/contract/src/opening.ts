import { z } from 'zod';

const minutes = z.array(z.number());

/** How long the house's jobs took on earlier mornings, minutes by kind; `shot` is one round at the bench. */
export const openingHistorySchema = z.object({ minutes: z.record(z.string(), minutes) }).meta({ id: 'OpeningHistory' });
/** Minutes that jobs took on earlier mornings, by kind. */
export type OpeningHistory = z.infer<typeof openingHistorySchema>;
