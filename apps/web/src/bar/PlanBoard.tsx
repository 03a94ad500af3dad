import {
  DndContext,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useSensor,
  useSensors,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { useElementSize } from '@mantine/hooks';
import type { Bar, PieceKind, Place } from '@tempera/contract/bar';
import { GRID_CM, putDown } from '@tempera/core/bar';
import type { KeyboardEvent } from 'react';
import { PlanDrawing } from './PlanDrawing.tsx';
import classes from './PlanPage.module.css';

/** Something that stands in the bar. */
export interface Piece {
  kind: PieceKind;
  id: string;
  name: string;
  place: Place;
}

export interface Plan {
  room: Bar['room'];
  pieces: Piece[];
}

/** Puts a piece somewhere else. */
export type Put = (id: string, place: (piece: Piece) => Place) => void;

interface BoardProps {
  shown: Bar;
  plan: Plan;
  chosenId: string | null;
  mayChange: boolean;
  onChoose: (id: string) => void;
  onPut: Put;
}

const HOLD_MS = 120;
const SLOP_PX = 6;

/** The plan that hands move things on. */
export function Board({ shown, plan, chosenId, mayChange, onChoose, onPut }: BoardProps) {
  const { ref, width } = useElementSize();
  const pxPerCm = width / plan.room.widthCm || 1;
  const byGrid: KeyboardCoordinateGetter = (event, { currentCoordinates }) => {
    const step = GRID_CM * pxPerCm;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.code];
    return by ? { x: currentCoordinates.x + (by[0] ?? 0), y: currentCoordinates.y + (by[1] ?? 0) } : undefined;
  };
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: SLOP_PX } }),
    useSensor(TouchSensor, { activationConstraint: { delay: HOLD_MS, tolerance: SLOP_PX } }),
    useSensor(KeyboardSensor, { coordinateGetter: byGrid }),
  );
  const names = new Map(plan.pieces.map(({ id, name }) => [id, name]));
  const nameOf = (id: unknown): string => names.get(String(id)) ?? 'piece';
  return (
    <DndContext
      sensors={sensors}
      autoScroll={false}
      accessibility={{
        screenReaderInstructions: {
          draggable:
            'Press space to pick the piece up, the arrow keys to move it by 2 cm, space to put it down, escape to leave it.',
        },
        announcements: {
          onDragStart: ({ active }) => `${nameOf(active.id)} picked up.`,
          onDragOver: () => undefined,
          onDragEnd: ({ active }) => `${nameOf(active.id)} put down.`,
          onDragCancel: ({ active }) => `${nameOf(active.id)} left where it was.`,
        },
      }}
      onDragStart={({ active }) => onChoose(String(active.id))}
      onDragEnd={({ active, delta }) =>
        onPut(String(active.id), ({ place }) =>
          putDown(place, { xCm: place.xCm + delta.x / pxPerCm, yCm: place.yCm + delta.y / pxPerCm }, plan.room),
        )
      }
    >
      <div
        ref={ref}
        className={classes.board}
        role="group"
        aria-label="The bar in plan"
        style={{ '--ratio': plan.room.widthCm / plan.room.depthCm }}
      >
        <PlanDrawing bar={shown} className={classes.drawing} />
        {plan.pieces.map((piece) => (
          <Handle
            key={piece.id}
            piece={piece}
            room={plan.room}
            chosen={piece.id === chosenId}
            mayChange={mayChange}
            onChoose={() => onChoose(piece.id)}
            onNudge={(dxCm, dyCm) =>
              onPut(piece.id, ({ place }) =>
                putDown(place, { xCm: place.xCm + dxCm, yCm: place.yCm + dyCm }, plan.room),
              )
            }
          />
        ))}
      </div>
    </DndContext>
  );
}

interface HandleProps {
  piece: Piece;
  room: Bar['room'];
  chosen: boolean;
  mayChange: boolean;
  onChoose: () => void;
  onNudge: (dxCm: number, dyCm: number) => void;
}

/** The part of the plan that a hand takes hold of. Arrow keys nudge it without picking it up first. */
function Handle({ piece, room, chosen, mayChange, onChoose, onNudge }: HandleProps) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: piece.id,
    disabled: !mayChange,
  });
  const { xCm, yCm, widthCm, depthCm } = piece.place;
  const nudges: Record<string, [number, number]> = {
    ArrowLeft: [-GRID_CM, 0],
    ArrowRight: [GRID_CM, 0],
    ArrowUp: [0, -GRID_CM],
    ArrowDown: [0, GRID_CM],
  };
  const lift = listeners as { onKeyDown?: (event: KeyboardEvent) => void } | undefined;
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      onKeyDown={(event) => {
        const nudge = nudges[event.key];
        if (nudge && mayChange && !isDragging) {
          event.preventDefault();
          onNudge(...nudge);
        } else lift?.onKeyDown?.(event);
      }}
      onFocus={onChoose}
      onClick={onChoose}
      className={classes.handle}
      data-kind={piece.kind}
      data-chosen={chosen}
      data-dragging={isDragging}
      aria-label={`${piece.name}, ${Math.round(xCm)} cm from the left, ${Math.round(yCm)} cm from the top`}
      style={{
        left: `${(100 * xCm) / room.widthCm}%`,
        top: `${(100 * yCm) / room.depthCm}%`,
        width: `${(100 * widthCm) / room.widthCm}%`,
        height: `${(100 * depthCm) / room.depthCm}%`,
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
    >
      <span className={classes.name}>{piece.name}</span>
    </button>
  );
}
