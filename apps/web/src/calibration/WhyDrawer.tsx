import { Drawer, Stack, Text, Title } from '@mantine/core';
import { alternatives, bySchool, type LockRule } from '@tempera/core/calibration';
import { lazy, Suspense, useMemo } from 'react';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { dialNumber, grams, percent, seconds } from '../kernel/format.ts';
import { written } from '../kernel/units.ts';
import type { BenchView } from './useBench.ts';
import { useRollouts } from './useRollouts.ts';
import { whatIsKnown } from './whatIsKnown.ts';
import classes from './WhyDrawer.module.css';
import { adviceTitle, reasonSaid } from '../ui/adviceWords.ts';

const ResponseChart = lazy(() => import('./ResponseChart.tsx'));

/** Why this advice: what the engine knows of the grinder, and what anything else would do. */
export function WhyDrawer({ view, onClose }: { view: BenchView; onClose: () => void }) {
  const { advice } = view;
  return (
    <Drawer
      opened
      onClose={onClose}
      position="right"
      size="min(100%, 46rem)"
      title={adviceTitle(advice)}
      classNames={{ title: classes.title ?? '' }}
      aria-label={`Why: ${adviceTitle(advice)}`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <Stack gap="lg">
        <ul className={classes.reasons} aria-label="All reasons">
          {advice.reasons.map(reasonSaid).map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
        <div className={classes.chart} role="img" aria-label={chartWords(view)}>
          <Suspense fallback={null}>
            <PanelBoundary what="The chart">
              <ResponseChart input={view.state.adviceCase} advice={advice} />
            </PanelBoundary>
          </Suspense>
        </div>
        <Choices view={view} />
        <section aria-labelledby="known">
          <Title order={3} id="known">
            What it knows here
          </Title>
          <dl className={classes.known}>
            {whatIsKnown(view).map(({ what, says }) => (
              <div key={what}>
                <dt>{what}</dt>
                <dd>{says}</dd>
              </div>
            ))}
          </dl>
        </section>
        <Schools view={view} />
      </Stack>
    </Drawer>
  );
}

function chartWords({ advice, grinder: { recipe } }: BenchView): string {
  const { here, predicted, action } = advice;
  const now = `At ${dialNumber(advice.from)} about ${seconds(here.timeS)} is expected`;
  const then = action === 'move' ? `, at ${dialNumber(advice.setting)} about ${seconds(predicted.timeS)}` : '';
  return `Shot time over the dial. ${now}${then}; the window is ${recipe.timeMinS} to ${recipe.timeMaxS} s.`;
}

/** Every setting in question: what is expected there, and what it takes from there until it locks. */
function Choices({ view }: { view: BenchView }) {
  const { advice, state, bar, grinder, standing, nowMs } = view;
  const choices = useMemo(() => alternatives(state.adviceCase, advice), [state, advice]);
  const foresight = useRollouts({
    grinder,
    facts: standing,
    bar,
    nowMs,
    choices: choices.map(({ expected, purgeG, doseG }) => ({ setting: expected.setting, purgeG, doseG })),
  });
  return (
    <section aria-labelledby="choices">
      <Title order={3} id="choices">
        What each choice would do
      </Title>
      <table className={classes.choices}>
        <thead>
          <tr>
            <th scope="col">Dial</th>
            <th scope="col">Expected</th>
            <th scope="col">Holds</th>
            <th scope="col">Until it locks</th>
          </tr>
        </thead>
        <tbody>
          {choices.map(({ expected, advised, doseG }) => {
            const found = foresight.get(expected.setting);
            const isHere = expected.setting === advice.from;
            return (
              <tr key={expected.setting} data-advised={advised}>
                <th scope="row">
                  <span className="number">{dialNumber(expected.setting)}</span>{' '}
                  <span className="faint">{advised ? 'advised' : isHere ? 'here' : ''}</span>
                  {doseG !== null && <span className="faint"> with {grams(doseG)}</span>}
                </th>
                <td className="number">{seconds(expected.timeS)}</td>
                <td className="number">{percent(expected.inWindow)}</td>
                <td className="number">
                  {advised && advice.action === 'lock'
                    ? 'now'
                    : found
                      ? `${found.shots.toFixed(1)} shots, ${written('mass', found.grams, 0)}`
                      : '…'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Text className="faint">
        Each way was played out 80 times on what is known of this grinder, doubt included, purges counted.
      </Text>
    </section>
  );
}

const schools: Record<LockRule, string> = {
  sureness: 'A stated sureness',
  firstGood: 'The first good shot',
  oneRepeat: 'One repeat',
  meanOfThree: 'The mean of three',
};

/** What the schools of "good enough" would do with the same shots. */
function Schools({ view }: { view: BenchView }) {
  const { state, house, advice } = view;
  const byRule = useMemo(() => bySchool(state.adviceCase), [state]);
  if (advice.judgement.kind !== 'sound') return null;
  return (
    <section aria-labelledby="schools">
      <Title order={3} id="schools">
        By other rules of the trade
      </Title>
      <dl className={classes.known}>
        {byRule.map(({ rule, advice: other }) => (
          <div key={rule}>
            <dt>
              {schools[rule]}
              {rule === house.lockRule && <span className="faint"> (yours)</span>}
            </dt>
            <dd>{adviceTitle(other)}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
