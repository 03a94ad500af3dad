/** What is done to the bar itself, beside the grinders' own facts. */
export const stepKinds = ['switchedOn', 'hot', 'takenBack'] as const;
type StepKind = (typeof stepKinds)[number];

/** What a gauge showed, in its own unit. */
export interface GaugeReading {
  gauge: string;
  value: number;
}

export interface StepBody {
  step: StepKind;
  machineId: string;
  /** What the gauges showed; empty where nobody read any. */
  readings: GaugeReading[];
  /** The step that did not happen after all; null unless this one takes it back. */
  takesBack: string | null;
}

/** A fact about a machine; shaped like the grinders' facts, so that one journal holds both. */
export interface StepFact {
  id: string;
  kind: 'step';
  at: string;
  grinderId: null;
  groupId: null;
  body: StepBody;
}

/** The steps that stand: those taken back are left out, and so are the takings back; oldest first. */
export function standingSteps<T extends StepFact>(steps: readonly T[]): T[] {
  const taken = new Set(steps.flatMap(({ body }) => (body.takesBack === null ? [] : [body.takesBack])));
  return steps
    .filter(({ id, body }) => body.step !== 'takenBack' && !taken.has(id))
    .toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at));
}
