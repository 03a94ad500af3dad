/** What somebody is trained in, and signed off for by a head. Apart from their schema: a page that asks needs no schema. */
export const skills = ['dose', 'dial', 'milk', 'opening', 'closing'] as const;
/** A piece of the bar that somebody may work alone, by its id. */
export type PieceSkill = `machine:${string}` | `grinder:${string}`;
/** What somebody is signed off for: a skill of the house, or one machine or grinder. */
export type Skill = (typeof skills)[number] | PieceSkill;

const said: Record<(typeof skills)[number], string> = {
  dose: 'dosing and tamping',
  dial: 'dialling in',
  milk: 'milk',
  opening: 'the opening',
  closing: 'closing',
};

const pieceOf = (skill: Skill): { kind: string; id: string } | null => {
  const [kind = '', id] = skill.split(':');
  return id === undefined ? null : { kind, id };
};

/** A skill in the middle of a sentence: "dialling in", "the grinder House". @param nameOf the name of a piece; null: not at hand */
export function skillSaid(skill: Skill, nameOf: (id: string) => string | null = () => null): string {
  const piece = pieceOf(skill);
  if (!piece) return said[skill as (typeof skills)[number]];
  const name = nameOf(piece.id);
  return name === null ? `this ${piece.kind}` : `the ${piece.kind} ${name}`;
}

/** Somebody as far as a sign-off asks. */
interface SignedOff {
  id: string;
  role: string;
  signOffs: readonly { skill: Skill; until: string | null }[];
}

/** The café's business day; asked for only where a sign-off lapses at all: a tablet's first look at the calendar takes a tenth of a second. */
export type Today = string | (() => string);

/** Whether a sign-off has lapsed. */
export const hasLapsed = ({ until }: { until: string | null }, today: Today): boolean =>
  until !== null && until < (typeof today === 'string' ? today : today());

/** Asked as soon as the house keeps any sign-offs; the others once somebody is signed off for that very thing. */
const always: ReadonlySet<Skill> = new Set<Skill>(['dial', 'milk', 'opening', 'closing']);

const isKept = (people: readonly SignedOff[], skill: Skill): boolean =>
  people.some(({ signOffs }) => signOffs.some((one) => always.has(skill) || one.skill === skill));

/**
 * Whether somebody may work at something alone: a head may; everybody where the house keeps no such sign-offs; else whoever is
 * signed off for it and has not lapsed.
 */
export function mayAlone(people: readonly SignedOff[], personId: string, skill: Skill, today: Today): boolean {
  const person = people.find(({ id }) => id === personId);
  if (person?.role === 'head' || !isKept(people, skill)) return true;
  return person?.signOffs.some((one) => one.skill === skill && !hasLapsed(one, today)) ?? false;
}

/** Of what a work asks for, what somebody is not signed off for. */
export const lacking = (
  people: readonly SignedOff[],
  personId: string,
  asked: readonly Skill[],
  today: Today,
): readonly Skill[] => asked.filter((skill) => !mayAlone(people, personId, skill, today));

/** What working at a bench asks for: the hands', the eye's, and that grinder and machine. */
export const skillsAtBench = (grinderId: string, machineId: string | null): readonly Skill[] => [
  'dose',
  'dial',
  `grinder:${grinderId}`,
  ...(machineId === null ? [] : [`machine:${machineId}` as const]),
];

/** Jobs of a run that ask for more than that somebody may be on it. */
const JOB_SKILLS: Partial<Record<string, Skill>> = { dial: 'dial', groupCheck: 'dose', doseTime: 'dose', milk: 'milk' };

/** What a job of a run asks for. @param pieces the machine or grinder that it is done at */
export function skillsOfJob(kind: string, pieces: readonly PieceSkill[]): readonly Skill[] {
  const skill = JOB_SKILLS[kind];
  return skill === undefined ? pieces : [skill, ...pieces];
}
