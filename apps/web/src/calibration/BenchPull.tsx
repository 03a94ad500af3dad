import { glassWeight } from '@tempera/core/capture';
import { useLearned } from '../bar/index.ts';
import { benchPath } from './benchPath.ts';
import { HandEntry } from './HandEntry.tsx';
import { ForgottenPull, PullElsewhere } from './PullHelp.tsx';
import { LivePullPanel } from './PullPanel.tsx';
import type { BenchRound } from './useBenchRound.ts';
import type { BenchView } from './useBench.ts';

/** The pull of a bench, and what takes its place while something is asked or typed. */
export function BenchPull({ view, round }: { view: BenchView; round: BenchRound }) {
  const { pull, send, screen, lastShot } = round;
  return (
    <LivePullPanel
      recipe={view.grinder.recipe}
      now={pull.now}
      stopping={round.stopping}
      resting={lastShot?.body.trace ? { ...lastShot.body, trace: lastShot.body.trace } : null}
      ready={screen.step === 'ready'}
      doseG={round.dose?.body.doseG ?? null}
      measuring={round.measuring}
      deviceName={round.devices?.name ?? null}
      onMeasuring={round.setMeasuring}
      onPull={round.startOrStop}
      onDrop={pull.markDrop}
      onDiscard={round.endPull}
      onKeepNow={() => pull.typeRest(view.grinder.recipe.timeMaxS)}
      onEnter={() => send({ kind: 'enters' })}
      onRecording={round.keepRecording}
      mishap={round.mishap}
      mishaps={round.mishaps}
      onMishap={round.setMishap}
      instead={<Instead view={view} round={round} />}
      asks={['typing', 'forgotten', 'elsewhere'].includes(screen.pull)}
    />
  );
}

function Instead({ view, round }: { view: BenchView; round: BenchRound }) {
  const { grinder, group, groups, house } = view;
  const { recipe } = grinder;
  const { pull, send, screen, hands } = round;
  const { data: learned } = useLearned();
  const { live } = pull;
  if (live && screen.pull === 'forgotten') {
    return (
      <ForgottenPull
        elapsedS={live.elapsedS}
        onType={() => pull.typeRest((recipe.timeMinS + recipe.timeMaxS) / 2)}
        onChoked={round.keepChoke}
        onRunsOn={() => send({ kind: 'runsOn', elapsedS: live.elapsedS })}
        onDiscard={round.endPull}
      />
    );
  }
  if (live && screen.pull === 'elsewhere') {
    const { groupId, check = false } = live.draft;
    return (
      <PullElsewhere
        group={groups.find(({ id }) => id === groupId)?.name ?? 'another group'}
        here={group.name}
        backTo={benchPath(grinder.id, groupId, { check })}
        onHere={() => pull.moveTo(group.id)}
        onDiscard={round.endPull}
      />
    );
  }
  if (screen.pull !== 'typing') return null;
  return (
    <HandEntry
      key={live?.draft.id ?? 'entered'}
      recipe={recipe}
      glass={learned?.glass ?? glassWeight([])}
      way={house.yieldBy}
      timeS={live?.draft.stoppedAtS ?? null}
      firstDropS={live?.draft.firstDropS ?? null}
      doseG={live || round.dose || !hands.enters ? null : round.askedG}
      cupG={live?.cupG ?? null}
      onKeep={round.keepNumbers}
      onDiscard={round.endPull}
    />
  );
}
