import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ActionIcon, Button, TextInput } from '@mantine/core';
import { IconGripVertical, IconTrash } from '@tabler/icons-react';
import classes from './Sheet.module.css';

interface Props {
  label: string;
  /** What one line is called: "step". */
  one: string;
  lines: readonly string[];
  onLines: (lines: string[]) => void;
  errorOf: (i: number) => string | null;
  error: string | null;
}

/** Lines in an order that matters: written, taken off, and moved by pointer, touch or keyboard. */
export function Lines({ label, one, lines, onLines, errorOf, error }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = lines.map((_, i) => String(i + 1));
  return (
    <div className={classes.wide} role="group" aria-label={label}>
      <span className={classes.listLabel}>{label}</span>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (over && over.id !== active.id) onLines(arrayMove([...lines], Number(active.id) - 1, Number(over.id) - 1));
        }}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ol className={classes.lines}>
            {lines.map((line, i) => (
              <Line
                key={i}
                id={String(i + 1)}
                one={one}
                line={line}
                error={errorOf(i)}
                onLine={(text) => onLines(lines.map((other, j) => (j === i ? text : other)))}
                onOff={() => onLines(lines.filter((_, j) => j !== i))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {error && (
        <p role="alert" className={classes.error}>
          {error}
        </p>
      )}
      <Button variant="default" onClick={() => onLines([...lines, ''])}>
        Add a {one}
      </Button>
    </div>
  );
}

interface LineProps {
  id: string;
  one: string;
  line: string;
  error: string | null;
  onLine: (text: string) => void;
  onOff: () => void;
}

function Line({ id, one, line, error, onLine, onOff }: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  return (
    <li ref={setNodeRef} className={classes.line} style={{ transform: CSS.Translate.toString(transform), transition }}>
      <ActionIcon variant="subtle" aria-label={`Move ${one} ${id}`} {...attributes} {...listeners}>
        <IconGripVertical />
      </ActionIcon>
      <TextInput
        size="md"
        aria-label={`${one} ${id}`}
        value={line}
        onChange={(event) => onLine(event.currentTarget.value)}
        error={error}
      />
      <ActionIcon variant="default" aria-label={`Take ${one} ${id} off`} onClick={onOff}>
        <IconTrash />
      </ActionIcon>
    </li>
  );
}
