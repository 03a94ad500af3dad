import type { NewEntry } from '@tempera/contract/journal';
import { skillsFor } from '@tempera/contract/rights';
import { lacking, skillSaid, type Skill } from '@tempera/contract/signOffs';
import type { Session } from '@tempera/contract/team';
import { businessDay } from '@tempera/core/house';
import { houseNowMs } from '../kernel/clock.ts';
import { inWords } from '../kernel/format.ts';
import { useSheets } from '../kernel/sheets.ts';
import { usePieces } from './pieces.ts';
import { usePeople } from './queries.ts';

/** What entries ask to be signed off for, who may alone, and what whoever is here lacks of it, in words. */
export function useSkillsAsked({ person, site }: Session, entries: readonly NewEntry[]) {
  const { data: groups = [] } = useSheets('group');
  const { nameOf } = usePieces();
  const people = usePeople();
  const today = (): string => businessDay(houseNowMs(), site.timeZone, site.dayStartsMin);
  const machineOf = (groupId: string): string | null =>
    groups.find(({ id }) => id === groupId)?.sheet.machineId ?? null;
  const skills = entries.flatMap((entry): readonly Skill[] => skillsFor(entry, machineOf));
  const lacks = lacking(people, person.id, skills, today);
  return {
    may: (personId: string): boolean => lacking(people, personId, skills, today).length === 0,
    said: inWords(lacks.map((skill) => skillSaid(skill, nameOf))),
  };
}
