import { MantineProvider } from '@mantine/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { Band, bandWord } from './Band.tsx';
import { clockAhead, dialNumber, moment } from '../kernel/format.ts';
import { NumberField, readQuantity } from './NumberField.tsx';
import { OneOf } from './OneOf.tsx';

beforeAll(() => {
  vi.stubGlobal('matchMedia', () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }));
});
afterEach(cleanup);

describe('the band', () => {
  const window = { low: 25, high: 30 };

  it('says inside, or by how much not; the edges are inside', () => {
    expect(bandWord(27, window, 's')).toBe('inside');
    expect(bandWord(25, window, 's')).toBe('inside');
    expect(bandWord(30, window, 's')).toBe('inside');
    expect(bandWord(30.04, window, 's')).toBe('inside');
    expect(bandWord(31.25, window, 's')).toBe('1.3 s over');
    expect(bandWord(20, window, 's')).toBe('5.0 s under');
  });

  it('can be read without seeing it', () => {
    render(<Band name="Time" value={31.2} window={window} unit="s" />);
    expect(screen.getByRole('img', { name: 'Time: 31.2 s, 1.2 s over; window 25 to 30 s' })).toBeTruthy();
  });

  it('keeps a far miss on the drawing', () => {
    const { container } = render(
      <Band name="Time" value={500} window={window} unit="s" doubt={{ low: 1, high: 900 }} />,
    );
    const places = [...container.querySelectorAll('[x], [x1], [x2]')].flatMap((element) =>
      ['x', 'x1', 'x2'].map((name) => parseFloat(element.getAttribute(name) ?? '50')),
    );
    for (const place of places) {
      expect(place).toBeGreaterThanOrEqual(0);
      expect(place).toBeLessThanOrEqual(100);
    }
  });
});

describe('a number as it is typed', () => {
  it('takes comma and point', () => {
    expect(readQuantity('18,2', 'doseG')).toEqual({ ok: true, value: 18.2, warning: null });
    expect(readQuantity('18.2 g', 'doseG')).toEqual({ ok: true, value: 18.2, warning: null });
  });

  it('warns outside the usual and refuses outside the possible, with what to do', () => {
    expect(readQuantity('24', 'doseG')).toEqual({
      ok: true,
      value: 24,
      warning: 'Outside the usual 7-22 g. Kept as typed; look twice.',
    });
    expect(readQuantity('31', 'doseG')).toEqual({
      ok: false,
      error: 'A dose lies between 3 and 30 g. Check the number and its unit.',
    });
    expect(readQuantity('lots', 'doseG', 18)).toEqual({ ok: false, error: 'Type the dose as a number, like 18.' });
  });

  it('keeps the text when it is refused, and steps by what the scale shows', () => {
    function Field() {
      const [text, setText] = useState('31 grams?');
      const reading = readQuantity(text, 'doseG');
      return (
        <NumberField
          label="Dose"
          unit="g"
          step={0.1}
          text={text}
          onText={setText}
          error={reading.ok ? null : reading.error}
        />
      );
    }
    render(
      <MantineProvider>
        <Field />
      </MantineProvider>,
    );
    const input = screen.getByLabelText<HTMLInputElement>('Dose, g');
    expect(input.value).toBe('31 grams?');
    expect(screen.getByText(/Type the dose as a number/)).toBeTruthy();
    fireEvent.change(input, { target: { value: '18,2' } });
    fireEvent.click(screen.getByRole('button', { name: 'Dose: more' }));
    expect(input.value).toBe('18.3');
    fireEvent.keyDown(input, { key: 'ArrowDown' });
    fireEvent.keyDown(input, { key: 'ArrowDown' });
    expect(input.value).toBe('18.1');
  });
});

describe('moments by the clock of the café', () => {
  const now = Date.parse('2031-05-04T23:30:00Z');

  it('draws the day where the café is, not where the server is', () => {
    expect(moment(Date.parse('2031-05-04T22:59:00Z'), 'Europe/Lisbon', now)).toBe('yesterday 23:59');
    expect(moment(Date.parse('2031-05-04T23:01:00Z'), 'Europe/Lisbon', now)).toBe('today 00:01');
    expect(moment(Date.parse('2031-05-04T22:59:00Z'), 'UTC', now)).toBe('today 22:59');
  });

  it('names the weekday within the week and the date before it', () => {
    expect(moment(Date.parse('2031-05-01T06:40:00Z'), 'UTC', now)).toBe('Thu 06:40');
    expect(moment(Date.parse('2031-03-03T06:40:00Z'), 'UTC', now)).toBe('3 Mar 06:40');
  });

  it('of what lies ahead names its day only where it is of another business day', () => {
    const site = { id: 's', name: 'Glasshouse', timeZone: 'UTC', dayStartsMin: 180 };
    const nowMs = Date.parse('2031-05-05T22:00:00Z');
    expect(clockAhead(Date.parse('2031-05-06T00:30:00Z'), site, nowMs)).toBe('00:30');
    expect(clockAhead(Date.parse('2031-05-06T08:00:00Z'), site, nowMs)).toBe('Tue 08:00');
  });

  it('writes dial numbers without floating point dust', () => {
    expect(dialNumber(14.299999999)).toBe('14.3');
    expect(dialNumber(28)).toBe('28');
  });
});

describe('one of a few', () => {
  it('begins with none where nobody has chosen, and says which was', () => {
    const chosen = vi.fn();
    render(
      <OneOf
        label="Sip"
        options={['sour', { value: 'flat', label: 'Flat as water' }]}
        value={null}
        onChange={chosen}
      />,
    );
    const radios = screen.getAllByRole<HTMLInputElement>('radio');
    expect(radios.map(({ checked }) => checked)).toEqual([false, false]);
    fireEvent.click(screen.getByRole('radio', { name: 'Flat as water' }));
    expect(chosen).toHaveBeenCalledExactlyOnceWith('flat');
  });

  it('is a group of its own beside another with the same words', () => {
    const of = (label: string) => (
      <OneOf label={label} options={['sour', 'flat']} value="sour" onChange={() => undefined} />
    );
    render(
      <MantineProvider>
        {of('Left')}
        {of('Right')}
      </MantineProvider>,
    );
    expect(screen.getAllByRole<HTMLInputElement>('radio', { checked: true })).toHaveLength(2);
  });
});
