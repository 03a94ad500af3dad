import { Button, Text } from '@mantine/core';
import { Link } from 'react-router';
import { useSheets } from '../kernel/sheets.ts';
import classes from './Pieces.module.css';

/** The group heads of a machine, from the left. */
export function MachineGroups({ machineId, mayChange }: { machineId: string; mayChange: boolean }) {
  const { data } = useSheets('group');
  const groups = (data ?? [])
    .filter(({ sheet, retired }) => sheet.machineId === machineId && !retired)
    .toSorted((a, b) => a.sheet.position - b.sheet.position);
  return (
    <section className={`sheet ${classes.head}`} aria-label="Group heads">
      <Text>
        {groups.length === 0 && 'No group head is on its sheet yet.'}
        {groups.map(({ id, sheet }) => (
          <Link key={id} to={`/bar/group/${id}`} className={classes.groupLink}>
            {sheet.name}
          </Link>
        ))}
      </Text>
      {mayChange && (
        <Button
          component={Link}
          to={`/bar/group/new?machine=${machineId}&position=${groups.length + 1}`}
          variant="default"
        >
          Add a group head
        </Button>
      )}
    </section>
  );
}
