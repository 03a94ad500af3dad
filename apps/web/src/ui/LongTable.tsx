import '@mantine/core/styles/Pagination.css';
import { Pagination, Text, TextInput } from '@mantine/core';
import { useDebouncedCallback } from '@mantine/hooks';
import { IconArrowDown, IconArrowUp } from '@tabler/icons-react';
import { useState, type ReactNode } from 'react';
import classes from './LongTable.module.css';

export interface Column<T, S extends string> {
  name: string;
  /** What the server sorts by; absent: it does not. */
  sort?: S;
  number?: boolean;
  cell: (row: T) => ReactNode;
}

export interface Look<S extends string> {
  search: string;
  sort: S;
  descending: boolean;
  page: number;
}

interface Props<T, S extends string> {
  label: string;
  columns: readonly Column<T, S>[];
  rows: readonly T[];
  keyOf: (row: T) => string;
  total: number;
  perPage: number;
  look: Look<S>;
  onLook: (look: Look<S>) => void;
  searchLabel: string;
  empty: string;
  beside?: ReactNode;
}

const TYPING_MS = 200;

/** A long list: searched, sorted and paged by the server, a page at a time. */
export function LongTable<T, S extends string>(props: Props<T, S>) {
  const { label, columns, rows, keyOf, total, perPage, look, onLook, searchLabel, empty, beside } = props;
  const [typed, setTyped] = useState(look.search);
  const search = useDebouncedCallback((text: string) => onLook({ ...look, search: text, page: 1 }), TYPING_MS);
  const sortBy = (sort: S): void =>
    onLook({ ...look, sort, descending: look.sort === sort ? !look.descending : false, page: 1 });
  return (
    <section aria-label={label}>
      <div className={classes.tools}>
        <TextInput
          type="search"
          size="md"
          className={classes.search}
          label={searchLabel}
          value={typed}
          onChange={(event) => {
            setTyped(event.currentTarget.value);
            search(event.currentTarget.value);
          }}
        />
        {beside}
      </div>
      {total === 0 ? (
        <Text className="sheet faint">{empty}</Text>
      ) : (
        <div className={classes.scroll} tabIndex={0} role="region" aria-label={`${label}, the table`}>
          <table className={classes.table}>
            <thead>
              <tr>
                {columns.map(({ name, sort, number }) => (
                  <th
                    key={name}
                    scope="col"
                    data-number={number}
                    aria-sort={sort === look.sort ? (look.descending ? 'descending' : 'ascending') : undefined}
                  >
                    {sort === undefined ? (
                      name
                    ) : (
                      <button type="button" className={classes.sort} onClick={() => sortBy(sort)}>
                        {name}
                        {sort === look.sort &&
                          (look.descending ? <IconArrowDown size={18} /> : <IconArrowUp size={18} />)}
                      </button>
                    )}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={keyOf(row)}>
                  {columns.map(({ name, number, cell }) => (
                    <td key={name} data-number={number}>
                      {cell(row)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {total > perPage && (
        <Pagination
          mt="md"
          size="lg"
          total={Math.ceil(total / perPage)}
          value={look.page}
          onChange={(page) => onLook({ ...look, page })}
          getControlProps={(control) => ({ 'aria-label': `${control} page` })}
          getItemProps={(page) => ({ 'aria-label': `page ${page}` })}
        />
      )}
    </section>
  );
}
