import type { GoodBand } from '@tempera/core/capture';
import type { CorrectionBody, FactOf } from '@tempera/core/facts';
import { NewBag } from '../coffee/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { lockHereFact, moveFacts } from './benchFacts.ts';
import { ShotEditor } from './ShotEditor.tsx';
import { SomethingElse } from './SomethingElse.tsx';
import type { BenchView } from './useBench.ts';
import { WhyDrawer } from './WhyDrawer.tsx';

/** What may be asked for beside the round of weigh, pull and turn. */
export type BenchDialog = 'else' | 'why' | 'bag';

interface Props {
  view: BenchView;
  open: BenchDialog | null;
  /** The shot that is looked at; null: none. */
  editing: FactOf<'shot'> | null;
  band: GoodBand | null;
  timeZone: string;
  onClose: () => void;
  /** One more shot, whatever is advised. */
  onAgain: () => void;
  onCorrect: (shot: FactOf<'shot'>, body: CorrectionBody) => void;
}

/** The bench's dialogs: one shot, another bag, why, and what was done instead. */
export function BenchDialogs({ view, open, editing, band, timeZone, onClose, onAgain, onCorrect }: Props) {
  const { grinder, state, advice } = view;
  const write = useWriteFacts();
  return (
    <>
      {editing && (
        <ShotEditor
          shot={editing}
          recipe={grinder.recipe}
          band={band}
          onClose={onClose}
          onCorrect={(body) => onCorrect(editing, body)}
        />
      )}
      {open === 'bag' && (
        <NewBag
          grinder={grinder}
          timeZone={timeZone}
          onClose={onClose}
          onSave={(body) => {
            write([{ kind: 'newBag', grinderId: grinder.id, groupId: null, body }]);
            onClose();
          }}
        />
      )}
      {open === 'why' && <WhyDrawer view={view} onClose={onClose} />}
      {open === 'else' && (
        <SomethingElse
          grinder={grinder}
          setting={state.setting}
          chance={state.shots.some(({ body }) => body.setting === state.setting) ? advice.here.inWindow : null}
          onClose={onClose}
          onAgain={onAgain}
          onLockHere={() => {
            write([lockHereFact(view, advice)]);
            onClose();
          }}
          onSave={({ setting, purgeG }) => {
            write(moveFacts(view, { from: state.setting, to: setting, advisedTo: advice.setting, purgeG }));
            onClose();
          }}
        />
      )}
    </>
  );
}
