import { Button } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import type { Closed } from '@tempera/core/opening';
import { businessDay } from '@tempera/core/house';
import { Link } from 'react-router';
import { clock, dayWord } from '../kernel/format.ts';
import { usePeople } from '../team/index.ts';
import { NextThing } from '../ui/NextThing.tsx';

/** After the closing is signed: when the bar opens again, and who opens it. */
export function ClosedOnHome({ closed, session }: { closed: Closed; session: Session }) {
  const people = usePeople();
  const { tomorrow, left } = closed;
  const { timeZone } = session.site;
  const opener = people.find(({ id }) => id === tomorrow?.opensById)?.name;
  const opensMs = tomorrow?.opensAt ? Date.parse(tomorrow.opensAt) : null;
  const opens =
    opensMs === null
      ? 'Nobody said when it opens next.'
      : `It opens ${dayWord(businessDay(opensMs, timeZone, 0))} at ${clock(opensMs, timeZone)}${opener ? `, ${opener} opens` : ''}.`;
  const rest =
    left.length === 0 ? '' : ` ${left.length === 1 ? 'One job was' : `${left.length} jobs were`} left for the morning.`;
  return (
    <NextThing title="The bar is closed" why={`${opens}${rest}`}>
      <Button component={Link} to="/opening?run=opening" size="xl">
        To the opening
      </Button>
    </NextThing>
  );
}
