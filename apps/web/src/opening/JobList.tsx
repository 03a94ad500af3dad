import { Button, Title } from '@mantine/core';
import type { JobState } from '@tempera/core/opening';
import { moment } from '../kernel/format.ts';
import classes from './Opening.module.css';
import type { MorningView } from './useMorning.ts';
import { jobTitle } from './words.ts';

const standingWord: Record<JobState['standing'], string> = {
  waiting: 'waits for another',
  ready: 'to be done',
  underWay: 'in hand',
  done: 'done',
  skipped: 'left out',
};
const mark: Record<JobState['standing'], string> = { waiting: '·', ready: '○', underWay: '◐', done: '●', skipped: '–' };

interface Props {
  view: MorningView;
  timeZone: string;
  onOpen: (key: string) => void;
  onUndo: (state: JobState) => void;
}

/** Every job of the morning: to take one out of its turn, or to take back what did not happen. */
export function JobList({ view, timeZone, onOpen, onUndo }: Props) {
  return (
    <section aria-label="All jobs" className={classes.all}>
      <Title order={2} size="h3">
        All of the morning
      </Title>
      <ul className={classes.jobs}>
        {view.states.map((state) => {
          const { job, standing, atMs, personId, factId, skippedWhy } = state;
          const who = view.nameOf(personId);
          const when = atMs === null ? '' : moment(atMs, timeZone, view.nowMs).replace('today ', '');
          return (
            <li key={job.key} data-standing={standing}>
              <span aria-hidden="true" className={classes.mark}>
                {mark[standing]}
              </span>
              <span className={classes.jobName}>
                {jobTitle(job, view.nameOf)}
                <span className="faint">
                  {' '}
                  {[standingWord[standing], who, when].filter(Boolean).join(', ')}
                  {skippedWhy && `: ${skippedWhy}`}
                </span>
              </span>
              {standing === 'ready' || standing === 'underWay' ? (
                <Button
                  variant="default"
                  onClick={() => onOpen(job.key)}
                  aria-label={`Do: ${jobTitle(job, view.nameOf)}`}
                >
                  Do
                </Button>
              ) : (
                factId !== null &&
                (standing === 'done' || standing === 'skipped') && (
                  <Button
                    variant="subtle"
                    color="umber"
                    onClick={() => onUndo(state)}
                    aria-label={`Take back: ${jobTitle(job, view.nameOf)}`}
                  >
                    Take back
                  </Button>
                )
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
