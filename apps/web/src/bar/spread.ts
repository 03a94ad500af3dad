/** What stands beside a line: where its middle belongs, px from the left. */
interface Anchored {
  id: string;
  atPx: number;
}
/** Where it stands: its middle, px from the left, and in which row, the nearest first. */
export interface Spread {
  atPx: number;
  row: number;
}

interface Cluster {
  ids: string[];
  /** Where the first of them would best stand. */
  wantedPx: number;
  startPx: number;
}

/**
 * Puts labels of one width beside a line so that none lies over another: each as near as can be to where it belongs, in their order, in as few rows as hold them.
 * Neighbours that would overlap share what they are moved by (pool adjacent violators; Ayer et al. 1955).
 * @param widthPx of a label with the gap to the next
 * @param withinPx the line's length
 */
export function spread(labels: readonly Anchored[], widthPx: number, withinPx: number): Map<string, Spread> {
  const ordered = labels.toSorted((a, b) => a.atPx - b.atPx);
  const inARow = Math.max(1, Math.floor(withinPx / widthPx));
  const rows = Math.ceil(ordered.length / inARow);
  const places = new Map<string, Spread>();
  for (let row = 0; row < rows; row += 1) {
    const own = ordered.filter((_, i) => i % rows === row);
    for (const [id, atPx] of inOneRow(own, widthPx, withinPx)) places.set(id, { atPx, row });
  }
  return places;
}

function inOneRow(ordered: readonly Anchored[], widthPx: number, withinPx: number): [string, number][] {
  const clusters: Cluster[] = [];
  const startOf = (wantedPx: number, count: number): number =>
    Math.max(0, Math.min(withinPx - count * widthPx, wantedPx));
  for (const { id, atPx } of ordered) {
    const wantedPx = atPx - widthPx / 2;
    let last: Cluster = { ids: [id], wantedPx, startPx: startOf(wantedPx, 1) };
    for (let before = clusters.at(-1); before && endOf(before, widthPx) > last.startPx; before = clusters.at(-1)) {
      clusters.pop();
      last = joined(before, last, widthPx, startOf);
    }
    clusters.push(last);
  }
  return clusters.flatMap(({ ids, startPx }) =>
    ids.map((id, i): [string, number] => [id, startPx + (i + 1 / 2) * widthPx]),
  );
}

const endOf = ({ ids, startPx }: Cluster, widthPx: number): number => startPx + ids.length * widthPx;

/** Two that touch stand side by side, about where both would be. */
function joined(
  before: Cluster,
  after: Cluster,
  widthPx: number,
  startOf: (wantedPx: number, count: number) => number,
): Cluster {
  const count = before.ids.length + after.ids.length;
  const firstOfAfter = after.wantedPx - before.ids.length * widthPx;
  const wantedPx = (before.wantedPx * before.ids.length + firstOfAfter * after.ids.length) / count;
  return { ids: [...before.ids, ...after.ids], wantedPx, startPx: startOf(wantedPx, count) };
}
