import { Button, Checkbox, Group, Stack, Text } from '@mantine/core';
import { useState, type ReactNode } from 'react';

interface Props {
  /** Said above: what to mind while it is done. */
  says?: ReactNode;
  /** What must be so before the step can end. */
  checks: readonly string[];
  action: string;
  onDone: () => void;
}

/** A step that is looked through line by line, and then done. */
export function Checks({ says, checks, action, onDone }: Props) {
  const [checked, setChecked] = useState<ReadonlySet<string>>(new Set());
  return (
    <Stack>
      {says && <Text>{says}</Text>}
      {checks.map((label) => (
        <Checkbox
          key={label}
          size="lg"
          label={label}
          checked={checked.has(label)}
          onChange={(event) => {
            const next = new Set(checked);
            if (event.currentTarget.checked) next.add(label);
            else next.delete(label);
            setChecked(next);
          }}
        />
      ))}
      <Group>
        <Button size="xl" disabled={checked.size < checks.length} onClick={onDone}>
          {action}
        </Button>
      </Group>
    </Stack>
  );
}
