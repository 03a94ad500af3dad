import { Button, Group, Text } from '@mantine/core';
import type { Happening } from '@tempera/core/facts';
import { Z_80 } from '@tempera/core/numbers';
import { Link } from 'react-router';
import { usualBench } from '../bar/index.ts';
import { InChamber } from '../calibration/index.ts';
import { HopperButton } from '../coffee/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { dialNumber, seconds } from '../kernel/format.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { AdviceInService, isForBench } from './AdviceInService.tsx';
import classes from './Day.module.css';
import { dueWord } from './dueWord.ts';
import { Happenings } from './Happenings.tsx';
import { Looks } from './Looks.tsx';
import { NewNote, Notes } from './Notes.tsx';
import { sureWord } from './sureWord.ts';
import { TimeAShot } from './TimeAShot.tsx';
import { asksForChange, type DayStation } from './useDay.ts';
import { WeighADose } from './WeighADose.tsx';

/** What somebody is at, at a grinder: the next dose is weighed while a shot runs. */
export type Doing = 'time' | 'dose' | 'more';

/** What is done along with what somebody is at already. */
export const doingAlso = (doing: readonly Doing[], what: 'time' | 'dose'): Doing[] => [
  ...doing.filter((one) => one !== 'more'),
  what,
];

interface Props {
  station: DayStation;
  timeZone: string;
  nowMs: number;
  doing: readonly Doing[];
  onDoing: (doing: readonly Doing[]) => void;
}

const AT_GRINDER: readonly Happening[] = ['refill', 'otherHands', 'cleaned'];
const WITH_CHAMBER: readonly Happening[] = ['chamberFilled', 'chamberEmptied', ...AT_GRINDER];

/** Put off for so long at a time; what it risks meanwhile stands above. */
const PUT_OFF_MIN = 15;
/** On a phone too. */
const THREE_IN_A_ROW = { base: 'sm', sm: 'lg' };

/** One grinder in service: its band, what is due, and what can be told of it in a tap or two. */
export function StationInService({ station, timeZone, nowMs, doing, onDoing }: Props) {
  const writeStep = useWriteStep();
  const { grinder, state, lastGroup, advice, doseDueAtMs } = station;
  const { predicted } = advice.here;
  const { timeMinS: low, timeMaxS: high } = grinder.recipe;
  const spread = Math.exp(Z_80 * predicted.sd);
  const lookDue = state.dueAtMs !== null && nowMs >= state.dueAtMs;
  const open = doing.includes('more');
  const begin = (what: 'time' | 'dose'): void => onDoing(doingAlso(doing, what));
  const done = (what: Doing) => () => onDoing(doing.filter((one) => one !== what));
  const [timing, weighing] = [doing.includes('time'), doing.includes('dose')];
  const idle = !timing && !weighing;
  return (
    <li className={classes.station} aria-label={grinder.name}>
      <Text>
        <strong>{grinder.name}</strong> at {dialNumber(state.setting)}
        <Due station={station} timeZone={timeZone} nowMs={nowMs} />
      </Text>
      <BandRow
        name="Time"
        unit="s"
        value={predicted.timeS}
        window={{ low, high }}
        doubt={{ low: predicted.timeS / spread, high: predicted.timeS * spread }}
      />
      {!isForBench(advice) && <Text className="faint">{sureWord(station)}</Text>}
      {advice.doubtedS !== null && (
        <Text>{seconds(advice.doubtedS)} was outside: the next shot tells whether it was that cup alone.</Text>
      )}
      <InChamber filledAtMs={station.chamberFilledAtMs} nowMs={nowMs} />
      <AdviceInService station={station} />
      <Notes grinderId={grinder.id} />
      {timing && lastGroup && <TimeAShot station={station} groupId={lastGroup.id} onDone={done('time')} />}
      {weighing && <WeighADose station={station} onDone={done('dose')} />}
      {!(timing && weighing) && (
        <Group gap={8}>
          {!timing && lastGroup && (
            <Button mih={48} px={THREE_IN_A_ROW} variant="default" onClick={() => begin('time')}>
              Time a shot
            </Button>
          )}
          {!weighing && doseDueAtMs !== null && (
            <Button mih={48} px={THREE_IN_A_ROW} variant="default" onClick={() => begin('dose')}>
              Weigh a dose
            </Button>
          )}
          {idle && (lookDue || asksForChange(station, nowMs)) && (
            <Button
              mih={48}
              px={THREE_IN_A_ROW}
              variant="subtle"
              color="umber"
              onClick={() => writeStep({ step: 'putOff', grinderId: grinder.id, minutes: PUT_OFF_MIN })}
            >
              Put off {PUT_OFF_MIN} min
            </Button>
          )}
          {idle && (
            <Button
              mih={48}
              px={THREE_IN_A_ROW}
              variant="subtle"
              color="umber"
              aria-expanded={open}
              onClick={() => onDoing(open ? [] : ['more'])}
            >
              {open ? 'Less' : 'More'}
            </Button>
          )}
        </Group>
      )}
      {open && (
        <div className={classes.more}>
          <Looks station={station} onTooLittle={() => begin('dose')} />
          <Happenings
            grinderId={grinder.id}
            whats={grinder.doser === 'chamber' ? WITH_CHAMBER : AT_GRINDER}
            label="At this grinder"
          />
          <Group gap={8}>
            <HopperButton grinderId={grinder.id} />
            <Button component={Link} to={usualBench(station)} variant="default" mih={48}>
              To the bench
            </Button>
            <Button component={Link} to={`/taste/${grinder.id}`} variant="default" mih={48}>
              Taste it
            </Button>
            <Button component={Link} to={`/day/${grinder.id}`} variant="default" mih={48}>
              How it ran
            </Button>
          </Group>
          <NewNote grinderId={grinder.id} />
        </div>
      )}
    </li>
  );
}

/** What is due of it, and since when: all that is due, or what comes first. A dose that waits hides no shot. */
function Due({ station, timeZone, nowMs }: Pick<Props, 'station' | 'timeZone' | 'nowMs'>) {
  const all = [
    { what: 'a dose', atMs: station.doseDueAtMs },
    { what: 'a shot', atMs: station.state.dueAtMs },
  ]
    .flatMap(({ what, atMs }) => (atMs === null ? [] : [{ what, atMs }]))
    .toSorted((a, b) => a.atMs - b.atMs);
  return all
    .filter(({ atMs }, i) => i === 0 || atMs <= nowMs)
    .map(({ what, atMs }) => (
      <span key={what} data-due={nowMs >= atMs} className={classes.due}>
        , {what} {dueWord(atMs, timeZone, nowMs)}
      </span>
    ));
}
