/** A rectangle seen from above, cm from the plan's left and top edge. */
export interface Rect {
  xCm: number;
  yCm: number;
  widthCm: number;
  depthCm: number;
}

export interface Size {
  widthCm: number;
  depthCm: number;
}

/** How much counter a piece usually takes, cm. */
export const usualSize = {
  machine: { widthCm: 90, depthCm: 52 },
  grinder: { widthCm: 24, depthCm: 40 },
  scale: { widthCm: 18, depthCm: 18 },
  knockBox: { widthCm: 18, depthCm: 26 },
  milk: { widthCm: 50, depthCm: 40 },
  counter: { widthCm: 200, depthCm: 60 },
} as const satisfies Record<string, Size>;

/** What is written at a grinder on the plan reaches so far beyond it on either side, cm. */
export const GRINDER_LABEL_CM = 14;

/** The grid that pieces snap to, cm. */
export const GRID_CM = 2;

const overlaps = (a: Rect, b: Rect): boolean =>
  a.xCm < b.xCm + b.widthCm && b.xCm < a.xCm + a.widthCm && a.yCm < b.yCm + b.depthCm && b.yCm < a.yCm + a.depthCm;

const within = (inner: Rect, outer: Rect): boolean =>
  inner.xCm >= outer.xCm &&
  inner.yCm >= outer.yCm &&
  inner.xCm + inner.widthCm <= outer.xCm + outer.widthCm &&
  inner.yCm + inner.depthCm <= outer.yCm + outer.depthCm;

/**
 * The first spot where a piece stands free: on a counter if one has room, else anywhere in the room, else in the
 * corner for a person to move.
 * @param besideCm room to leave on either side, for what is written at the piece; given up where nothing has so much
 */
export function freePlace(
  size: Size,
  room: Size,
  standing: readonly Rect[],
  counters: readonly Rect[],
  besideCm = 0,
): Rect {
  const floor: Rect = { xCm: 0, yCm: 0, ...room };
  const wide = { ...size, widthCm: size.widthCm + 2 * besideCm };
  const apart = standing.map((piece) => ({
    ...piece,
    xCm: piece.xCm - besideCm,
    widthCm: piece.widthCm + 2 * besideCm,
  }));
  for (const counter of besideCm > 0 ? counters : []) {
    const found = freeIn(counter, wide, apart);
    if (found) return { ...found, ...size, xCm: found.xCm + besideCm };
  }
  for (const area of [...counters, floor]) {
    const found = freeIn(area, size, standing);
    if (found) return found;
  }
  return { xCm: 0, yCm: 0, ...size };
}

function freeIn(area: Rect, size: Size, standing: readonly Rect[]): Rect | null {
  for (let yCm = area.yCm; yCm + size.depthCm <= area.yCm + area.depthCm; yCm += GRID_CM) {
    for (let xCm = area.xCm; xCm + size.widthCm <= area.xCm + area.widthCm; xCm += GRID_CM) {
      const here = { xCm, yCm, ...size };
      if (!standing.some((piece) => overlaps(here, piece))) return here;
    }
  }
  return null;
}

/** A piece put down at `to`: on the grid, and inside the room. */
export function putDown(piece: Rect, to: { xCm: number; yCm: number }, room: Size): Rect {
  const snap = (cm: number, most: number): number =>
    Math.max(0, Math.min(most - (most % GRID_CM), Math.round(cm / GRID_CM) * GRID_CM));
  return {
    ...piece,
    xCm: snap(to.xCm, room.widthCm - piece.widthCm),
    yCm: snap(to.yCm, room.depthCm - piece.depthCm),
  };
}

export interface Misplaced {
  id: string;
  why: 'overlaps' | 'offCounter';
}

/** Pieces that stand in each other, or over the edge of every counter. */
export function misplaced(pieces: readonly { id: string; place: Rect }[], counters: readonly Rect[]): Misplaced[] {
  return pieces.flatMap(({ id, place }): Misplaced[] => {
    if (pieces.some((other) => other.id !== id && overlaps(place, other.place))) return [{ id, why: 'overlaps' }];
    return counters.some((counter) => within(place, counter)) ? [] : [{ id, why: 'offCounter' }];
  });
}
