import type { Skill } from '@tempera/contract/signOffs';
import type { Role } from '@tempera/contract/team';

/** What people are called by what they are in the house. */
export const roleWord: Record<Role, string> = {
  head: 'head barista',
  barista: 'barista',
  trainee: 'trainee',
  office: 'office',
};

/** What somebody is signed off for. */
export const skillWord: Record<Skill, string> = {
  dial: 'Dialling in',
  milk: 'Milk',
  opening: 'The opening',
  closing: 'Closing',
};
