import type { NewFact } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { OutboxContext } from '../kernel/facts.tsx';
import type { Entry } from '../kernel/outbox.ts';
import { Leave } from './Leave.tsx';
import { OutboxStatus } from './OutboxStatus.tsx';
import { Boundary, PanelBoundary } from '../ui/Boundary.tsx';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { waitingOutbox } from '../kernel/testOutbox.ts';

afterEach(cleanup);

async function statusWith(entries: Entry[], inReach: boolean) {
  const outbox = waitingOutbox(entries);
  await outbox.load();
  renderPart(
    <OutboxContext value={outbox}>
      <OutboxStatus aloneSinceMs={inReach ? null : Date.parse('2031-05-04T06:30:00Z')} session={session} />
    </OutboxContext>,
  );
}

const entry = (personId: string, refusal: string | null, id = 'a'): Entry => ({
  fact: { id, personId, kind: 'purge', at: '2031-05-04T06:31:00Z', body: { purgeG: 12 } } as NewFact,
  refusal,
});
const session: Session = {
  person: { id: 'ines', name: 'Ines', role: 'head' },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
};

describe('what is unsent', () => {
  it('is silent when all is well', async () => {
    await statusWith([], true);
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('says offline even with nothing to send', async () => {
    await statusWith([], false);
    expect(screen.getByRole('button', { name: 'Alone since 06:30' })).toBeTruthy();
  });

  it('counts, and tells whose turn it is', async () => {
    await statusWith([entry('ines', null), entry('noor', null, 'b')], true);
    fireEvent.click(screen.getByRole('button', { name: '2 unsent' }));
    expect(await screen.findByText(/Waits to be sent/)).toBeTruthy();
    expect(screen.getByText(/Waits until the one who made it signs in here/)).toBeTruthy();
  });

  it('shows what was refused before what goes next, and of a whole shift no more than is read', async () => {
    const waiting = Array.from({ length: 200 }, (_, i) => entry('ines', null, `fact ${i}`));
    await statusWith([...waiting, entry('ines', 'Check the number.', 'refused')], true);
    fireEvent.click(screen.getByRole('button', { name: '1 refused' }));
    const said = (await screen.findByRole('dialog')).textContent;
    expect(said.indexOf('Check the number.')).toBeLessThan(said.indexOf('Waits to be sent'));
    expect(said.match(/Waits to be sent/g)).toHaveLength(50);
    expect(said).toContain('And 150 more after these');
  });

  it('shows why an entry was refused and lets it go', async () => {
    await statusWith([entry('ines', 'Check the number.')], true);
    fireEvent.click(screen.getByRole('button', { name: '1 refused' }));
    expect(await screen.findByText(/^Purge: Purged 12.0 g/)).toBeTruthy();
    expect(screen.getByText('Check the number.')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Let it go' }));
    fireEvent.click(screen.getByRole('button', { name: 'Yes, it did not happen' }));
    await vi.waitFor(() => expect(screen.queryByText(/Check the number/)).toBeNull());
  });
});

describe('leaving the tablet', () => {
  const leave = (alone: boolean, showsNames: boolean) => {
    const ended = vi.fn(() => Promise.resolve(new Response(null, { status: 204 })));
    vi.stubGlobal('fetch', ended);
    const client = new QueryClient();
    client.setQueryData(['welcome'], {
      demo: null,
      sites: [{ id: 's', name: 'Shed', enrolled: showsNames, people: [] }],
    });
    renderPart(
      <QueryClientProvider client={client}>
        <Leave session={session} alone={alone} />
      </QueryClientProvider>,
    );
    fireEvent.click(screen.getByRole('button', { name: 'Hand over to someone else' }));
    return ended;
  };

  it('asks once more where nobody could come in before the server is back', async () => {
    const ended = leave(true, false);
    expect(screen.getByRole('alert').textContent).toContain('nobody comes in here before it is back');
    expect(ended).not.toHaveBeenCalled();
    fireEvent.click(screen.getByRole('button', { name: 'Hand over all the same' }));
    await vi.waitFor(() => expect(ended).toHaveBeenCalled());
  });

  it.each([
    ['with the server there', false, false],
    ['where the device shows names', true, true],
  ])('is one tap %s', async (_name, alone, showsNames) => {
    const ended = leave(alone, showsNames);
    await vi.waitFor(() => expect(ended).toHaveBeenCalled());
    expect(screen.queryByRole('alert')).toBeNull();
  });
});

describe('single-key shortcuts', () => {
  function Page({ onSpace, onJ }: { onSpace: () => void; onJ: () => void }) {
    useShortcuts({ ' ': onSpace, j: onJ });
    return (
      <>
        <input aria-label="field" />
        <button type="button">a button</button>
        <p>text</p>
      </>
    );
  }
  const open = () => {
    const [onSpace, onJ] = [vi.fn(), vi.fn()];
    renderPart(<Page onSpace={onSpace} onJ={onJ} />);
    return { onSpace, onJ };
  };

  it('work from anywhere on the page, once a press', () => {
    const { onSpace, onJ } = open();
    fireEvent.keyDown(screen.getByText('text'), { key: ' ' });
    fireEvent.keyDown(screen.getByText('text'), { key: ' ', repeat: true });
    fireEvent.keyDown(document.body, { key: 'j' });
    expect(onSpace).toHaveBeenCalledTimes(1);
    expect(onJ).toHaveBeenCalledTimes(1);
  });

  it('are silent while somebody types, and leave the space bar to a button in focus', () => {
    const { onSpace, onJ } = open();
    fireEvent.keyDown(screen.getByLabelText('field'), { key: 'j' });
    fireEvent.keyDown(screen.getByLabelText('field'), { key: ' ' });
    fireEvent.keyDown(screen.getByRole('button'), { key: ' ' });
    fireEvent.keyDown(document.body, { key: 'j', ctrlKey: true });
    expect(onSpace).not.toHaveBeenCalled();
    expect(onJ).not.toHaveBeenCalled();
    fireEvent.keyDown(screen.getByRole('button'), { key: 'j' });
    expect(onJ).toHaveBeenCalledTimes(1);
  });
});

describe('a page that fails', () => {
  const Broken = ({ says }: { says: string }): never => {
    throw new Error(says);
  };

  it.each([
    ['Failed to fetch dynamically imported module: /assets/late.js', /server cannot be reached/],
    ['plan is undefined', /wrong on our side/],
  ])('%s: is told in a sentence, and can be tried again', (says, sentence) => {
    vi.spyOn(console, 'error').mockImplementation(() => undefined);
    renderPart(
      <Boundary at="/plan">
        <Broken says={says} />
      </Boundary>,
    );
    expect(screen.getByRole('alert').textContent).toMatch(sentence);
    expect(screen.getByRole('button', { name: 'Try again' })).toBeTruthy();
    vi.restoreAllMocks();
  });

  it('is only the panel where a panel has a boundary of its own', () => {
    vi.spyOn(console, 'error').mockImplementation(() => undefined);
    renderPart(
      <>
        <PanelBoundary what="The chart">
          <Broken says="no canvas" />
        </PanelBoundary>
        <button type="button">Pull</button>
      </>,
    );
    expect(screen.getByRole('status').textContent).toMatch(/^The chart cannot be shown/);
    expect(screen.getByRole('button', { name: 'Pull' })).toBeTruthy();
    vi.restoreAllMocks();
  });
});
