import { describe, expect, it } from 'vitest';
import { freePlace, misplaced, putDown, usualSize } from './freePlace.ts';

const room = { widthCm: 300, depthCm: 200 };
const counter = { xCm: 0, yCm: 0, widthCm: 200, depthCm: 60 };
const at = (xCm: number, yCm: number, widthCm = 24, depthCm = 40) => ({ xCm, yCm, widthCm, depthCm });

describe('where a new piece stands', () => {
  it('is the first free spot of a counter', () => {
    expect(freePlace(usualSize.grinder, room, [], [counter])).toEqual(at(0, 0));
    expect(freePlace(usualSize.grinder, room, [at(0, 0)], [counter])).toEqual(at(24, 0));
  });

  it('leaves room for what is written beside it, where there is room', () => {
    const first = freePlace(usualSize.grinder, room, [], [counter], 14);
    expect(first).toEqual(at(14, 0));
    // Its neighbour's words end where its own begin: 24 cm of grinder and 14 cm on either side of both.
    expect(freePlace(usualSize.grinder, room, [first], [counter], 14)).toEqual(at(66, 0));
    expect(freePlace(usualSize.grinder, room, [first], [{ ...counter, widthCm: 70 }], 14)).toEqual(at(38, 0));
  });

  it('is the floor when no counter has room, and the corner when nothing has', () => {
    const full = { ...counter, widthCm: 24 };
    expect(freePlace(usualSize.grinder, room, [at(0, 0)], [full])).toEqual(at(24, 0));
    expect(freePlace({ widthCm: 400, depthCm: 40 }, room, [], [counter])).toEqual(at(0, 0, 400, 40));
  });
});

describe('a piece that is put down', () => {
  it('snaps to the grid and stays in the room', () => {
    expect(putDown(at(0, 0), { xCm: 31.2, yCm: 14.9 }, room)).toEqual(at(32, 14));
    expect(putDown(at(0, 0), { xCm: -50, yCm: 900 }, room)).toEqual(at(0, 160));
    expect(putDown(at(0, 0, 25, 41), { xCm: 900, yCm: 900 }, room)).toEqual(at(274, 158, 25, 41));
  });

  it('is named when it stands in another or over the edge', () => {
    const pieces = [
      { id: 'a', place: at(0, 0) },
      { id: 'b', place: at(20, 10) },
      { id: 'c', place: at(190, 10) },
      { id: 'd', place: at(100, 10) },
    ];
    expect(misplaced(pieces, [counter])).toEqual([
      { id: 'a', why: 'overlaps' },
      { id: 'b', why: 'overlaps' },
      { id: 'c', why: 'offCounter' },
    ]);
  });
});
