import type { HoldState } from '@tempera/core/bar';

/** How a grinder stands, by shape: full, empty, half and broken lozenge. The word always stands beside it. */
export const standingWord: Record<HoldState, string> = {
  held: 'holds',
  due: 'check due',
  dialling: 'being dialled in',
  never: 'never held',
};

const OUTLINE = 'M9 1.5 L16.5 9 L9 16.5 L1.5 9 Z';
const HALF = 'M9 1.5 L9 16.5 L1.5 9 Z';

export function Seal({ standing }: { standing: HoldState }) {
  return (
    <svg className="seal" viewBox="0 0 18 18" aria-hidden="true">
      {standing === 'held' && <path className="fill" d={OUTLINE} />}
      {standing === 'dialling' && <path className="fill" d={HALF} />}
      <path d={OUTLINE} strokeDasharray={standing === 'never' ? '3 2.5' : undefined} />
    </svg>
  );
}
