import type { FactKind, StepKind } from '@tempera/core/facts';
import { skillsAtBench, type Skill } from './signOffs.ts';
import type { Role } from './team.ts';

/**
 * Who may write which fact, and correct, withdraw or take back one: the one table that the server enforces and the web
 * explains. Undoing is judged by what is undone.
 */

/** What somebody writes; a correction and a step taken back are judged by their target. */
export type Act = Exclude<FactKind, 'correction'> | Exclude<StepKind, 'takenBack'>;

/** Roles that may write an act, undo their own, and undo another's. */
export interface Right {
  write: readonly Role[];
  undoOwn: readonly Role[];
  undoOthers: readonly Role[];
}

const head: readonly Role[] = ['head'];
/** Whoever holds a shift alone. */
const shift: readonly Role[] = ['head', 'barista'];
/** Whoever works at the bar, a trainee too. */
const hands: readonly Role[] = ['head', 'barista', 'trainee'];
const everyone: readonly Role[] = ['head', 'barista', 'trainee', 'office'];

const work: Right = { write: hands, undoOwn: hands, undoOthers: shift };
const decision: Right = { write: shift, undoOwn: shift, undoOthers: shift };
/** What all shifts go by: another's is undone by a head only. */
const word: Right = { write: shift, undoOwn: shift, undoOthers: head };
/** What a head answers for. */
const signature: Right = { write: shift, undoOwn: head, undoOthers: head };

/** The table. */
export const rights: Record<Act, Right> = {
  shot: work,
  dose: work,
  collarMove: work,
  purge: work,
  seen: work,
  newBag: { ...work, write: everyone, undoOwn: everyone },
  lock: word,
  switchedOn: work,
  hot: work,
  begun: work,
  skipped: decision,
  water: work,
  scale: work,
  hopper: work,
  rinsed: work,
  firstDose: work,
  doseTime: work,
  groupChecked: work,
  mended: decision,
  button: work,
  tasted: work,
  tasteSettled: decision,
  aimKept: decision,
  trialBegan: decision,
  trialTasted: work,
  happened: work,
  air: work,
  doseSet: work,
  putOff: work,
  note: { write: everyone, undoOwn: everyone, undoOthers: shift },
  noteDone: { write: everyone, undoOwn: everyone, undoOthers: shift },
  handedOver: decision,
  takenOver: decision,
  milk: work,
  hopperEmptied: work,
  chuteBrushed: work,
  backFlushed: work,
  soaked: work,
  wandCleaned: work,
  traysCleaned: work,
  switchedOff: work,
  upkept: decision,
  upkeepSeen: decision,
  tomorrow: decision,
  thawed: { ...work, write: everyone, undoOwn: everyone },
  planned: signature,
  signedOff: signature,
};

/**
 * What is decided at a station: where the house asks for it, by somebody who is signed off for it, or with their yes.
 * @param machineOf the machine of a group; null: not known
 */
export function skillsFor(
  { kind, body, grinderId, groupId }: { kind: string; body: object; grinderId: string | null; groupId: string | null },
  machineOf: (groupId: string) => string | null,
): readonly Skill[] {
  const act = actOf({ kind, body });
  if (act === 'milk') return ['milk'];
  if (act !== 'lock' || grinderId === null) return [];
  return skillsAtBench(grinderId, groupId === null ? null : machineOf(groupId));
}

/** What is signed with one's name: only with a PIN of just now. */
export const surelyWritten: readonly Act[] = ['signedOff'];

/**
 * Whether a tablet of the house may tell an entry by the name that it carries alone, before its author gave their PIN: plain work that a
 * trainee does too. Whatever decides, signs, undoes, or wants somebody signed off waits for the PIN.
 */
export function goesByName(entry: {
  kind: string;
  body: object;
  personId: string;
  grinderId: string | null;
  groupId: string | null;
}): boolean {
  const act = actOf(entry);
  if (act === null || !rights[act].write.includes('trainee') || surelyWritten.includes(act)) return false;
  const { tasterId = entry.personId } = entry.body as { tasterId?: string };
  return tasterId === entry.personId && skillsFor(entry, () => null).length === 0;
}

/** Who may write down what another person said of a cup. */
export const mayTellForOthers = shift;

/** What an entry is, by its kind and, for a step, by what it says; null: it undoes another. */
export function actOf(entry: { kind: string; body: object }): Act | null {
  if (entry.kind === 'correction') return null;
  if (entry.kind !== 'step') return entry.kind as Act;
  const { step } = entry.body as { step: StepKind };
  return step === 'takenBack' ? null : step;
}

/** Roles that may undo an entry. */
export const rolesToUndo = (act: Act, isOwn: boolean): readonly Role[] =>
  isOwn ? rights[act].undoOwn : rights[act].undoOthers;
