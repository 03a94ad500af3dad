import type { GoodBand } from '@tempera/core/capture';
import type { CorrectionBody } from '@tempera/core/facts';
import { NewBag } from '../coffee/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { lockHereFact, moveFacts } from './benchFacts.ts';
import type { BenchEvent, BenchHands } from './benchMoves.ts';
import { LookDialog } from './LookDialog.tsx';
import { ShotEditor } from './ShotEditor.tsx';
import { TurnDialog } from './TurnDialog.tsx';
import type { BenchView } from './useBench.ts';
import { WhyDrawer } from './WhyDrawer.tsx';

interface Props {
  view: BenchView;
  hands: BenchHands;
  send: (event: BenchEvent) => void;
  band: GoodBand | null;
  timeZone: string;
}

/** The bench's dialogs: one shot, another bag, why, what was seen, and what was done instead. */
export function BenchDialogs({ view, hands, send, band, timeZone }: Props) {
  const { grinder, group, state, advice, house, facts } = view;
  const write = useWriteFacts();
  const close = (): void => send({ kind: 'closed' });
  const editing = facts.find(({ id }) => id === hands.editingId);
  const at = { grinderId: grinder.id, groupId: null };
  const correct = (body: CorrectionBody): void => {
    write([{ kind: 'correction', grinderId: grinder.id, groupId: editing?.groupId ?? group.id, body }]);
    close();
  };
  return (
    <>
      {editing?.kind === 'shot' && (
        <ShotEditor shot={editing} recipe={grinder.recipe} band={band} onClose={close} onCorrect={correct} />
      )}
      {hands.dialog === 'bag' && (
        <NewBag
          grinder={grinder}
          timeZone={timeZone}
          onClose={close}
          onSave={(body) => {
            write([{ kind: 'newBag', ...at, body }]);
            close();
          }}
        />
      )}
      {hands.dialog === 'why' && <WhyDrawer view={view} onClose={close} />}
      {hands.dialog === 'look' && (
        <LookDialog
          never={state.lastLock === null}
          onSeen={(sign) => write([{ kind: 'seen', ...at, body: { setting: state.setting, sign } }])}
          onClose={close}
        />
      )}
      {hands.dialog === 'turn' && (
        <TurnDialog
          grinder={grinder}
          setting={state.setting}
          purgeCount={house.purgeCount}
          chance={state.shots.some(({ body }) => body.setting === state.setting) ? advice.here.inWindow : null}
          onClose={close}
          onAgain={() => send({ kind: 'passedOver', shots: state.shots.length })}
          onLook={() => send({ kind: 'opened', dialog: 'look' })}
          onLockHere={() => {
            write([lockHereFact(view, advice)]);
            close();
          }}
          onSave={({ setting, ...purge }, doseG) => {
            const body = { setting, doseG: doseG ?? 0, grindTimeS: null, measuredBy: 'hand' as const };
            // Two changes at once are written as what they are: two facts, in one go.
            write([
              ...moveFacts(view, { from: state.setting, to: setting, advisedTo: advice.setting, ...purge }),
              ...(doseG === null ? [] : [{ kind: 'dose' as const, grinderId: grinder.id, groupId: group.id, body }]),
            ]);
            close();
          }}
        />
      )}
    </>
  );
}
