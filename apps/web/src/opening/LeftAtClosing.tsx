import { Text } from '@mantine/core';
import type { Closed } from '@tempera/core/opening';
import { jobTitle } from './words.ts';

/** How the evening left the bar, for whoever opens it. */
export function LeftAtClosing({ closed, nameOf }: { closed: Closed; nameOf: (id: string | null) => string }) {
  const { detergentGroupIds, left, tomorrow, signedAtMs } = closed;
  const opener = tomorrow?.opensById ? nameOf(tomorrow.opensById) : '';
  const said = [
    ...(signedAtMs === null ? ['The last closing was not signed for.'] : []),
    ...(opener === '' ? [] : [`${opener} opens.`]),
    ...(detergentGroupIds.length === 0
      ? []
      : [`Flushed with detergent last night: ${detergentGroupIds.map(nameOf).toSorted().join(', ')}.`]),
    ...left.map(
      ({ job, stationId, why }) =>
        `Left out last night, so it comes first: ${jobTitle({ kind: job, stationId, withId: null }, { nameOf, coffeeOf: () => '' })}. ${why}`,
    ),
  ];
  return (
    <>
      {said.map((line) => (
        <Text key={line}>{line}</Text>
      ))}
    </>
  );
}
