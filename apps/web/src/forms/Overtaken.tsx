import { Button, Group, Text } from '@mantine/core';
import { differences, type Field } from './fields.ts';
import classes from './Sheet.module.css';

interface Props {
  by: string | null;
  fields: readonly Field[];
  theirs: unknown;
  mine: unknown;
  onMine: () => void;
  onTheirs: () => void;
}

/** Somebody was faster: both are shown, nothing typed is lost, and a person decides. */
export function Overtaken({ by, fields, theirs, mine, onMine, onTheirs }: Props) {
  const differing = differences(fields, theirs, mine);
  return (
    <div role="alert" className={classes.overtaken}>
      <Text fw={600}>{by ?? 'Somebody'} changed this while you did. Yours is kept here.</Text>
      <DifferenceTable differences={differing} before={`As ${by ?? 'they'} left it`} after="Yours" />
      <Group>
        <Button onClick={onMine}>Go on with mine</Button>
        <Button variant="default" onClick={onTheirs}>
          Take theirs
        </Button>
      </Group>
    </div>
  );
}

interface TableProps {
  differences: ReturnType<typeof differences>;
  before: string;
  after: string;
}

/** What differs, side by side. */
export function DifferenceTable({ differences: differing, before, after }: TableProps) {
  if (differing.length === 0) return <Text className="faint">The two say the same.</Text>;
  return (
    <table className={classes.differences}>
      <thead>
        <tr>
          <th scope="col">
            <span className="visually-hidden">What</span>
          </th>
          <th scope="col">{before}</th>
          <th scope="col">{after}</th>
        </tr>
      </thead>
      <tbody>
        {differing.map((difference) => (
          <tr key={difference.label}>
            <th scope="row">{difference.label}</th>
            <td>{difference.before}</td>
            <td className="number">{difference.after}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
