/** One measured figure: what, how much, in which unit, and what is aimed at. */
export interface Figure {
  name: string;
  value: number;
  unit: string;
  aim?: string;
  /** Its place, when it belongs to a table; such a figure is printed there. */
  cell?: { table: string; row: string; column: string };
}

const NAME_WIDTH = 58;
const CELL_WIDTH = 10;
const ROW_WIDTH = 30;

const shown = ({ value, unit }: Figure): string => {
  const digits = Math.abs(value) < 10 ? 2 : Math.abs(value) < 1_000 ? 1 : 0;
  return `${value.toFixed(digits)}${unit === '%' ? ' %' : ''}`;
};

/** Figures as a person reads them: tables first, then one line each. */
export function asText(figures: readonly Figure[]): string {
  const tables = [...new Set(figures.flatMap(({ cell }) => (cell ? [cell.table] : [])))];
  const lines = figures
    .filter(({ cell }) => !cell)
    .map(
      (figure) =>
        `${figure.name.padEnd(NAME_WIDTH)} ${shown(figure).padStart(9)} ${figure.unit === '%' ? '' : figure.unit}` +
        (figure.aim ? `   (aim: ${figure.aim})` : ''),
    );
  return [...tables.map((table) => tableAsText(table, figures)), ...lines].join('\n');
}

function tableAsText(table: string, figures: readonly Figure[]): string {
  const cells = figures.filter(({ cell }) => cell?.table === table);
  const columns = [...new Set(cells.map(({ cell }) => cell?.column ?? ''))];
  const rows = [...new Set(cells.map(({ cell }) => cell?.row ?? ''))];
  const line = (row: string): string =>
    columns
      .map((column) => cells.find(({ cell }) => cell?.row === row && cell.column === column))
      .map((figure) => (figure ? shown(figure) : '').padStart(CELL_WIDTH))
      .join('');
  return [
    table.padEnd(ROW_WIDTH) + columns.map((column) => column.padStart(CELL_WIDTH)).join(''),
    ...rows.map((row) => row.padEnd(ROW_WIDTH) + line(row)),
    '',
  ].join('\n');
}
