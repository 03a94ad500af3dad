import { skillSaid, type Skill } from '@tempera/contract/signOffs';
import type { Role } from '@tempera/contract/team';

/** What people are called by what they are in the house. */
export const roleWord: Record<Role, string> = {
  head: 'head barista',
  barista: 'barista',
  trainee: 'trainee',
  office: 'office',
};

/** What somebody is signed off for, at the beginning of a line. */
export function skillWord(skill: Skill, nameOf: (id: string) => string | null): string {
  const word = skillSaid(skill, nameOf);
  return word.charAt(0).toUpperCase() + word.slice(1);
}
