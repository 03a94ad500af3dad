import type { Role } from '@tempera/contract/team';

/** What people are called by what they are in the house. */
export const roleWord: Record<Role, string> = {
  head: 'head barista',
  barista: 'barista',
  trainee: 'trainee',
  office: 'office',
};
