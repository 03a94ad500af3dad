import { usualHouse, type PolicyVersion } from '@tempera/contract/policy';
import { usualPolicy } from '@tempera/core/calibration';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { adviceByPolicy } from './example.ts';
import { PolicyForm } from './PolicyForm.tsx';
import { policyLine } from './policyWords.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const current: PolicyVersion = {
  ...usualHouse,
  sureness: 0.9,
  version: 3,
  reason: 'as last year',
  changedBy: 'Ines',
  changedAt: '2031-05-04T06:00:00Z',
};
const choose = (name: string): void => void fireEvent.click(screen.getByRole('radio', { name }));
const type = (label: string | RegExp, text: string): void => {
  fireEvent.change(screen.getByRole('textbox', { name: label }), { target: { value: text } });
};

describe('the policy form', () => {
  it('asks for nothing while nothing was changed', () => {
    renderPart(<PolicyForm current={current} mayChange />);
    expect(screen.queryByRole('button', { name: 'Decide so' })).toBeNull();
  });

  it('shows what a choice would do, wants a reason, and saves it as based on what was seen', async () => {
    const fetched = vi.fn<typeof fetch>(() => Promise.resolve(Response.json({ versions: [current] }, { status: 201 })));
    vi.stubGlobal('fetch', fetched);
    renderPart(<PolicyForm current={current} mayChange />);
    choose('The first good shot');
    expect(screen.getByRole('columnheader', { name: 'With this' })).toBeTruthy();
    const save = screen.getByRole<HTMLButtonElement>('button', { name: 'Decide so' });
    fireEvent.click(save);
    expect(fetched).not.toHaveBeenCalled();
    const why = screen.getByRole('textbox', { name: 'Why' });
    expect([document.activeElement, why.getAttribute('aria-invalid')]).toEqual([why, 'true']);
    type('Why', 'a slow Monday');
    fireEvent.click(save);
    await waitFor(() => expect(fetched).toHaveBeenCalled());
    const body = JSON.parse(fetched.mock.calls[0]?.[1]?.body as string) as object;
    expect(body).toMatchObject({ lockRule: 'firstGood', basedOn: 3, reason: 'a slow Monday', sureness: 0.9 });
  });

  it('says what is wrong with a number, and keeps it', () => {
    renderPart(<PolicyForm current={current} mayChange />);
    type(/^Sure enough/, '120');
    expect(screen.getByRole('alert').textContent).toContain('between 60 and 99');
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: /^Sure enough/ }).value).toBe('120');
  });

  it('shows both when somebody else was faster, and goes on with mine only when told', () => {
    const { rerender } = renderPart(<PolicyForm current={current} mayChange />);
    choose('One repeat');
    rerender(<PolicyForm current={{ ...current, version: 4, lockRule: 'meanOfThree', changedBy: 'Ada' }} mayChange />);
    const alert = screen.getByRole('alert').textContent;
    expect(alert).toContain('Ada changed this');
    expect(alert).toContain('The mean of three');
    expect(alert).toContain('Yours is kept here: One repeat');
    expect(screen.queryByRole('button', { name: 'Decide so' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Go on with mine' }));
    expect(screen.getByRole('button', { name: 'Decide so' })).toBeTruthy();
    expect(screen.getByRole<HTMLInputElement>('radio', { name: 'One repeat' }).checked).toBe(true);
  });

  it('is for reading only where somebody may not change it', () => {
    renderPart(<PolicyForm current={current} mayChange={false} />);
    expect(screen.getByRole<HTMLInputElement>('radio', { name: 'One repeat' }).disabled).toBe(true);
    expect(screen.getByText(/Only a head barista/)).toBeTruthy();
  });
});

describe('the example', () => {
  it('comes out differently for different houses', () => {
    const actions = (change: object) =>
      adviceByPolicy({ ...usualPolicy, ...change }).map(({ advice }) => advice.action);
    expect(actions({ lockRule: 'firstGood' })).toEqual(['lock', 'lock']);
    expect(actions({ lockRule: 'oneRepeat' })).toEqual(['repeat', 'lock']);
    const doses = (change: object) => adviceByPolicy({ ...usualPolicy, ...change }).map(({ advice }) => advice.doseG);
    expect(doses({ trim: 'none' })).toEqual([null, null]);
    expect(doses({ trim: 'dose' }).some((doseG) => doseG !== null)).toBe(true);
  });

  it('is told in one line a version', () => {
    expect(policyLine(current)).toBe(
      'A stated sureness of 90 %, a check at 20 % risk and after 75 min at the latest, all else as usual',
    );
  });
});
