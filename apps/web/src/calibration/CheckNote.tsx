import { Button, Stack, Text, Title } from '@mantine/core';
import { Link } from 'react-router';

/** What a check of a group is for, and the way back to what it says. */
export function CheckNote({ group, pulled }: { group: string; pulled: boolean }) {
  return (
    <Stack component="section" aria-label="Check of the group" gap="sm">
      <Title order={2} size="h3">
        {pulled ? 'Pulled: see what it says' : `A shot through ${group}, where the collar holds`}
      </Title>
      <Text>Leave the collar alone. The shot says how {group} differs, and is no shot of the dialling in.</Text>
      <Button component={Link} to="/opening" size="lg" variant={pulled ? 'filled' : 'default'}>
        Back to the opening
      </Button>
    </Stack>
  );
}
