import type { PieceSkill } from '@tempera/contract/signOffs';
import { useSheets } from '../kernel/sheets.ts';

/** Machines and grinders that somebody may be signed off for. */
export function usePieces(): { skills: readonly PieceSkill[]; nameOf: (id: string) => string | null } {
  const { data: machines = [] } = useSheets('machine');
  const { data: grinders = [] } = useSheets('grinder');
  const here = <T extends { retired: boolean }>(all: readonly T[]): readonly T[] =>
    all.filter(({ retired }) => !retired);
  return {
    skills: [
      ...here(machines).map(({ id }): PieceSkill => `machine:${id}`),
      ...here(grinders).map(({ id }): PieceSkill => `grinder:${id}`),
    ],
    nameOf: (id) => [...machines, ...grinders].find((one) => one.id === id)?.sheet.name ?? null,
  };
}
