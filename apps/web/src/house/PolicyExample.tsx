import { Text } from '@mantine/core';
import type { HousePolicy } from '@tempera/contract/policy';
import type { Advice } from '@tempera/core/calibration';
import { adviceTitle } from '../ui/adviceWords.ts';
import { grams, percent, seconds } from '../kernel/format.ts';
import { adviceByPolicy, asksByPolicy } from './example.ts';
import classes from './Policies.module.css';

/** The advice on one made-up bench, as it is now and as it would be. */
export function PolicyExample({ current, wanted }: { current: HousePolicy; wanted: HousePolicy | null }) {
  const now = adviceByPolicy(current);
  const then = wanted === null ? null : adviceByPolicy(wanted);
  const asks = asksByPolicy(current);
  const asksThen = wanted === null ? null : asksByPolicy(wanted);
  const checkMin = now.at(-1)?.advice.nextCheckMin ?? 0;
  const checkThenMin = then?.at(-1)?.advice.nextCheckMin ?? checkMin;
  return (
    <>
      <Text className="faint">
        On a grinder whose marks are worth 5 s, that held yesterday, with a window of 25 to 30 s:
      </Text>
      <table className={classes.example}>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Now</th>
            {then && <th scope="col">With this</th>}
          </tr>
        </thead>
        <tbody>
          {asks.map(({ when, asks: says }, i) => {
            const changed = asksThen?.[i]?.asks;
            // Beside a choice only what it changes is shown, so that the reason stays in view.
            if (changed === says) return null;
            return (
              <tr key={when}>
                <th scope="row">{when}</th>
                <td>{says}</td>
                {changed !== undefined && <td data-changed>{changed}</td>}
              </tr>
            );
          })}
          {now.map(({ afterS, advice }, i) => {
            const changed = then?.[i]?.advice;
            return (
              <tr key={afterS.length}>
                <th scope="row">Advice after {afterS.map(seconds).join(', ')}</th>
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
        The next check after its lock: {checkWord(checkMin)}
        {checkThenMin !== checkMin && `, with this ${checkWord(checkThenMin)}`}.
      </Text>
    </>
  );
}

const A_DAY_MIN = 1_440;
const checkWord = (minutes: number): string => (minutes >= A_DAY_MIN ? 'none by the clock' : `in ${minutes} min`);

/** The advice in a few words, the trimmed dose included. */
function titleOf(advice: Advice): string {
  // A repeat and a dose name it themselves.
  const dose = advice.doseG === null || advice.action !== 'lock' ? '' : ` with ${grams(advice.doseG)}`;
  return `${adviceTitle(advice)}${dose}`;
}

function Outcome({ advice }: { advice: Advice }) {
  return (
    <>
      {titleOf(advice)} <span className="faint">({percent(advice.predicted.inWindow)})</span>
    </>
  );
}
