import { nextThings, type NextThing } from '@tempera/core/opening';
import { jobsFor } from './jobsFor.ts';
import type { MorningView } from './useMorning.ts';

/** What a person does now and next; the run, the home page and the others' tablets ask this one. */
export const nextThingsOf = (view: MorningView, personId: string): NextThing[] =>
  nextThings(view.states, view.tasks, personId, jobsFor(view, personId));
