import type { NewEntry, NewFact } from '@tempera/contract/journal';
import type { FactBodies, FactKind, StepBody } from '@tempera/core/facts';
import { createContext, use, useMemo, useSyncExternalStore } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Session } from '@tempera/contract/team';
import { useSession } from './session.ts';
import { skewMs } from './clock.ts';
import type { Entry, Outbox } from './outbox.ts';
import { askYes, rolesNeeded } from './yes.ts';

export const OutboxContext = createContext<Outbox | null>(null);

export function useOutbox(): Outbox {
  const outbox = use(OutboxContext);
  if (!outbox) throw new Error('useOutbox: no outbox above this component');
  return outbox;
}

/** All facts that the server has not confirmed yet. */
export function useUnsent(): readonly Entry[] {
  const outbox = useOutbox();
  return useSyncExternalStore(outbox.subscribe, outbox.entries);
}

/** A fact before it has an id and a time; a pull brings its own, so that writing it again is no second shot. */
export type Draft = {
  [K in FactKind]: {
    kind: K;
    grinderId: string;
    groupId: string | null;
    body: FactBodies[K];
    id?: string;
    at?: string;
  };
}[FactKind];

let lastMs = 0;

/** Facts written together keep their order: each is dated at least a millisecond after the one before. */
function stamp(session: Session): Pick<NewFact, 'id' | 'at' | 'skewMs' | 'personId' | 'siteId'> {
  lastMs = Math.max(Date.now(), lastMs + 1);
  return {
    id: uuidv7({ msecs: lastMs }),
    at: new Date(lastMs).toISOString(),
    skewMs: skewMs(),
    personId: session.person.id,
    siteId: session.site.id,
  };
}

/** Keeps entries for sending; what this person may not write alone waits for a second person's yes first. */
function keepOrAsk(outbox: Outbox, session: Session, entries: readonly NewEntry[]): void {
  const roles = rolesNeeded(session.person.role, entries);
  if (roles) askYes({ entries, roles });
  else void outbox.add(entries);
}

/** Writes a step of a machine through the outbox. */
export function useWriteStep(): (body: StepBody) => void {
  const outbox = useOutbox();
  const { data: session } = useSession();
  return (body) => {
    if (!session) throw new Error('useWriteStep: nobody is signed in');
    keepOrAsk(outbox, session, [{ ...stamp(session), kind: 'step' as const, grinderId: null, groupId: null, body }]);
  };
}

/** Writes facts through the outbox. Returns them as written. */
export function useWriteFacts(): (drafts: readonly Draft[]) => NewFact[] {
  const outbox = useOutbox();
  const { data: session } = useSession();
  return useMemo(
    () => (drafts) => {
      if (!session) throw new Error('useWriteFacts: nobody is signed in');
      const facts = drafts.map((draft) => ({ ...stamp(session), ...draft }));
      keepOrAsk(outbox, session, facts);
      return facts;
    },
    [outbox, session],
  );
}
