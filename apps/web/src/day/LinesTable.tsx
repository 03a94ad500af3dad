import { Button } from '@mantine/core';
import { useState } from 'react';
import classes from './Day.module.css';

interface Props {
  label: string;
  head: readonly string[];
  /** Newest first; as many cells as the head has. */
  lines: readonly { id: string; cells: readonly string[] }[];
}

const FIRST_LINES = 30;

/** The same as a chart, for those who read: the newest lines, and all of them at a tap. */
export function LinesTable({ label, head, lines }: Props) {
  const [all, setAll] = useState(false);
  const shown = all ? lines : lines.slice(0, FIRST_LINES);
  return (
    <section aria-label={label} className={classes.scroll} tabIndex={0}>
      <table className={classes.table}>
        <thead>
          <tr>
            {head.map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map(({ id, cells }) => (
            <tr key={id}>
              {cells.map((cell, i) => (
                <td key={head[i]}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {lines.length > shown.length && (
        <Button variant="default" mih={48} mt="sm" onClick={() => setAll(true)}>
          All {lines.length} lines
        </Button>
      )}
    </section>
  );
}
