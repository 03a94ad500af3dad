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
  /** A signature is a head barista's to take back. */
  head: boolean;
}

/** Every job of the run: to take one out of its turn, or to take back what did not happen. What is over folds away. */
export function JobList(props: Props) {
  const isOver = ({ standing }: JobState): boolean => standing === 'done' || standing === 'skipped';
  const open = props.view.states.filter((state) => !isOver(state));
  const over = props.view.states.filter(isOver);
  return (
    <section aria-label="All jobs" className={classes.all}>
      <Title order={2} size="h3">
        All that is left
      </Title>
      <Jobs {...props} states={open} />
      {over.length > 0 && (
        <details className={classes.over}>
          <summary>{over.length} done or left out</summary>
          <Jobs {...props} states={over} />
        </details>
      )}
    </section>
  );
}

function Jobs({ states, ...props }: Props & { states: readonly JobState[] }) {
  return (
    <ul className={classes.jobs}>
      {states.map((state) => (
        <JobLine key={state.job.key} {...props} state={state} />
      ))}
    </ul>
  );
}

function JobLine({ state, view, timeZone, onOpen, onUndo, head }: Props & { state: JobState }) {
  const { job, standing, atMs, personId, factId, skippedWhy } = state;
  const title = jobTitle(job, view);
  const when = atMs === null ? '' : moment(atMs, timeZone, view.nowMs).replace('today ', '');
  return (
    <li data-standing={standing}>
      <span aria-hidden="true" className={classes.mark}>
        {mark[standing]}
      </span>
      <span className={classes.jobName}>
        {title}
        <span className="faint">
          {' '}
          {[standingWord[standing], view.nameOf(personId), when].filter(Boolean).join(', ')}
          {skippedWhy && `: ${skippedWhy}`}
        </span>
      </span>
      {(standing === 'ready' || standing === 'underWay') && (
        <Button variant="default" onClick={() => onOpen(job.key)} aria-label={`Do: ${title}`}>
          Do
        </Button>
      )}
      {factId !== null && (standing === 'done' || standing === 'skipped') && (head || job.kind !== 'signOff') && (
        <Button variant="subtle" color="umber" onClick={() => onUndo(state)} aria-label={`Take back: ${title}`}>
          Take back
        </Button>
      )}
    </li>
  );
}
