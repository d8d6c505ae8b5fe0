'use client';

import { type KeyboardEvent, useRef } from 'react';

export interface GridColumn {
  readonly name: string;
  /** Cells that stand there, or null where they are filled in. */
  readonly cells: readonly string[] | null;
}

interface Props {
  readonly label: string;
  readonly columns: readonly GridColumn[];
  readonly rows: number;
  /** By the columns that are filled in. */
  readonly filled: readonly (readonly string[])[];
  /** What a cell may be, in the order in which it turns; any text where there is none. */
  readonly values: readonly string[];
  /** Absent where nothing can be filled in. */
  readonly onFill?: (column: number, row: number, value: string) => void;
  /** A class for a filled-in cell. */
  readonly lookOf?: (column: number, row: number) => string;
  /** What stands beside a filled-in cell: what was wanted, or observed. */
  readonly besideOf?: (column: number, row: number) => React.ReactNode;
  /** At the end of a row. */
  readonly endOf?: (row: number) => React.ReactNode;
}

/**
 * A table in which some columns are filled in: a press turns a cell, a typed value goes into it and on to the one below, and
 * arrow keys go from cell to cell.
 */
export function CellGrid({ label, columns, rows, filled, values, onFill, lookOf, besideOf, endOf }: Props) {
  const table = useRef<HTMLTableElement>(null);
  const open = columns.filter(({ cells }) => cells === null);
  const go = (column: number, row: number) =>
    table.current?.querySelector<HTMLElement>(`[data-cell="${column},${row}"]`)?.focus();
  /** The cell behind this one, down the column and then on to the next. */
  const next = (column: number, row: number) => (row + 1 < rows ? go(column, row + 1) : go(column + 1, 0));
  const onKey = (event: KeyboardEvent, column: number, row: number) => {
    const typed = values.find((value) => value.toLowerCase() === event.key.toLowerCase());
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (typed !== undefined && values.length > 0) {
      onFill?.(column, row, typed);
      next(column, row);
    } else if (event.key === 'ArrowDown' || event.key === 'Enter') next(column, row);
    else if (event.key === 'ArrowUp') go(column, row - 1);
    else if (event.key === 'ArrowRight' && values.length > 0) go(column + 1, row);
    else if (event.key === 'ArrowLeft' && values.length > 0) go(column - 1, row);
    else if ((event.key === 'Backspace' || event.key === 'Delete') && values.length > 0)
      onFill?.(column, row, '');
    else return;
    event.preventDefault();
  };
  const turned = (value: string) => values[(values.indexOf(value) + 1) % values.length]!;
  return (
    <table
      ref={table}
      className="w-full text-center font-mono text-sm"
      aria-label={label}
      role={onFill ? 'grid' : undefined}
    >
      <thead>
        <tr className="border-b border-ink font-sans text-xs">
          {columns.map(({ name, cells }) => (
            <th
              key={name}
              scope="col"
              className={`px-1 py-1 ${cells ? '' : 'border-l border-hairline text-accent'}`}
            >
              {name}
            </th>
          ))}
          {endOf && (
            <th scope="col">
              <span className="sr-only">right or wrong</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: rows }, (_, row) => (
          <tr key={row} className={row % 8 > 3 ? 'bg-paper' : ''}>
            {columns.map(({ name, cells }) => {
              if (cells) return <td key={name}>{cells[row]}</td>;
              const column = open.findIndex((c) => c.name === name);
              const value = filled[column]?.[row] ?? '';
              const own = {
                'data-cell': `${column},${row}`,
                'aria-label': `${name} in row ${row}: ${value || 'empty'}`,
                className: `inline-block h-6 min-w-10 rounded text-center align-middle leading-6 ${lookOf?.(column, row) ?? ''}`,
                onKeyDown: (event: KeyboardEvent) => onKey(event, column, row),
              };
              return (
                <td key={name} className="border-l border-hairline">
                  <span className="flex items-center justify-center gap-1">
                    {!onFill ? (
                      <span className={own.className}>{value || '·'}</span>
                    ) : values.length > 0 ? (
                      <button
                        type="button"
                        {...own}
                        className={`${own.className} cursor-pointer hover:bg-accent-soft focus-visible:bg-accent-soft ${value ? '' : 'text-quiet'}`}
                        onClick={() => onFill(column, row, turned(value))}
                      >
                        {value || '·'}
                      </button>
                    ) : (
                      <input
                        {...own}
                        className={`${own.className} border border-hairline bg-raised`}
                        value={value}
                        maxLength={16}
                        onChange={(event) => onFill(column, row, event.target.value)}
                      />
                    )}
                    {besideOf?.(column, row)}
                  </span>
                </td>
              );
            })}
            {endOf && <td>{endOf(row)}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
