/** What somebody is trained in, and signed off for by a head. Apart from their schema: a page that asks needs no schema. */
export const skills = ['dial', 'milk', 'opening', 'closing'] as const;
export type Skill = (typeof skills)[number];

export const skillSaid: Record<Skill, string> = {
  dial: 'dialling in',
  milk: 'milk',
  opening: 'the opening',
  closing: 'closing',
};

/** Somebody as far as a sign-off asks. */
interface SignedOff {
  id: string;
  role: string;
  signOffs: readonly { skill: Skill; until: string | null }[];
}

/** Whether a sign-off has lapsed. @param today the café's business day */
export const hasLapsed = ({ until }: { until: string | null }, today: string): boolean =>
  until !== null && until < today;

/**
 * Whether somebody may work at something alone: a head may; everybody where the house keeps no sign-offs at all; else whoever is
 * signed off for it and has not lapsed.
 * @param today the café's business day
 */
export function mayAlone(people: readonly SignedOff[], personId: string, skill: Skill, today: string): boolean {
  const person = people.find(({ id }) => id === personId);
  if (person?.role === 'head' || !people.some(({ signOffs }) => signOffs.length > 0)) return true;
  return person?.signOffs.some((one) => one.skill === skill && !hasLapsed(one, today)) ?? false;
}
