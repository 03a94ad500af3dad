import { Button } from '@mantine/core';
import { Link } from 'react-router';

/** The end of the opening has a page of its own. */
export function SignOffStep() {
  return (
    <Button size="xl" component={Link} to="/opening/sign-off">
      To the page that is signed
    </Button>
  );
}
