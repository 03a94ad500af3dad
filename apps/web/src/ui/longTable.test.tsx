import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { LongTable, type Look } from './LongTable.tsx';
import { renderPart } from './testRender.tsx';

afterEach(cleanup);

type Sort = 'name' | 'doseG';
const rows = [
  { id: 'a', name: 'House double', doseG: 18 },
  { id: 'b', name: 'Guest double', doseG: 17.5 },
];
const look: Look<Sort> = { search: '', sort: 'name', descending: false, page: 2 };

function open(total = 60, shown = rows) {
  const onLook = vi.fn<(look: Look<Sort>) => void>();
  renderPart(
    <LongTable
      label="Recipes"
      columns={[
        { name: 'Recipe', sort: 'name', cell: ({ name }) => name },
        { name: 'In', sort: 'doseG', number: true, cell: ({ doseG }) => doseG },
        { name: 'Time', cell: () => '25–30 s' },
      ]}
      rows={shown}
      keyOf={({ id }) => id}
      total={total}
      perPage={25}
      look={look}
      onLook={onLook}
      searchLabel="Find a recipe"
      empty="No recipe matches."
    />,
  );
  return onLook;
}

describe('a long list', () => {
  it('says how it is sorted, and sorts by another column or the other way round', () => {
    const onLook = open();
    expect(screen.getByRole('columnheader', { name: /Recipe/ }).getAttribute('aria-sort')).toBe('ascending');
    fireEvent.click(screen.getByRole('button', { name: 'In' }));
    expect(onLook).toHaveBeenLastCalledWith({ ...look, sort: 'doseG', page: 1 });
    fireEvent.click(screen.getByRole('button', { name: 'Recipe' }));
    expect(onLook).toHaveBeenLastCalledWith({ ...look, descending: true, page: 1 });
    expect(screen.queryByRole('button', { name: 'Time' })).toBeNull();
  });

  it('asks once after the typing has stopped, from the first page on', async () => {
    const onLook = open();
    const search = screen.getByRole('searchbox', { name: 'Find a recipe' });
    for (const text of ['g', 'gu', 'gue']) fireEvent.change(search, { target: { value: text } });
    await waitFor(() => expect(onLook).toHaveBeenCalledTimes(1));
    expect(onLook).toHaveBeenCalledWith({ ...look, search: 'gue', page: 1 });
  });

  it('turns pages, each with a name', () => {
    const onLook = open();
    fireEvent.click(screen.getByRole('button', { name: 'page 3' }));
    expect(onLook).toHaveBeenCalledWith({ ...look, page: 3 });
  });

  it('says so when nothing matches', () => {
    open(0, []);
    expect(screen.getByText('No recipe matches.')).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
  });
});
