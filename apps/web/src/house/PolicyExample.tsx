import { Text } from '@mantine/core';
import type { Advice, HousePolicy } from '@tempera/core/calibration';
import { adviceTitle } from '../calibration/index.ts';
import { grams, percent, seconds } from '../ui/format.ts';
import { adviceByPolicy } from './example.ts';
import classes from './Policies.module.css';

/** The advice on one made-up bench, as it is now and as it would be. */
export function PolicyExample({ current, wanted }: { current: HousePolicy; wanted: HousePolicy | null }) {
  const now = adviceByPolicy(current);
  const then = wanted === null ? null : adviceByPolicy(wanted);
  const checkMin = now.at(-1)?.advice.nextCheckMin ?? 0;
  const checkThenMin = then?.at(-1)?.advice.nextCheckMin ?? checkMin;
  return (
    <>
      <Text className="faint">
        On a grinder whose marks are worth 4 s, that held yesterday, with a window of 25 to 30 s:
      </Text>
      <table className={classes.example}>
        <thead>
          <tr>
            <th scope="col">After</th>
            <th scope="col">Now</th>
            {then && <th scope="col">With this</th>}
          </tr>
        </thead>
        <tbody>
          {now.map(({ afterS, advice }, i) => {
            const changed = then?.[i]?.advice;
            return (
              <tr key={afterS.length}>
                <th scope="row">{afterS.map(seconds).join(', ')}</th>
                <td>
                  <Outcome advice={advice} />
                </td>
                {changed && (
                  <td data-changed={titleOf(changed) !== titleOf(advice)}>
                    <Outcome advice={changed} />
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
      <Text className="faint">
        The next check after its lock: in {checkMin} min{checkThenMin !== checkMin && `, with this in ${checkThenMin}`}.
      </Text>
    </>
  );
}

/** The advice in a few words, the trimmed dose included. */
function titleOf(advice: Advice): string {
  const dose = advice.doseG === null || advice.action === 'dose' ? '' : ` with ${grams(advice.doseG)}`;
  return `${adviceTitle(advice)}${dose}`;
}

function Outcome({ advice }: { advice: Advice }) {
  return (
    <>
      {titleOf(advice)} <span className="faint">({percent(advice.predicted.inWindow)})</span>
    </>
  );
}
