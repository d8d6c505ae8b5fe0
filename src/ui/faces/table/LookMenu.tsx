import { Popover } from 'radix-ui';
import { useMemo } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { probeCandidates } from '@/core/drawing/editing/probe-columns';
import { tableLines } from '@/core/logic/table/table-text';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { spokenText } from '@/core/values/markup';
import { showProbeColumn } from '@/session/changes/probe-columns';
import { fileName } from '@/ui/controls/save-file';
import { useSession, useSessionState } from '@/ui/session/session-context';
import type { RowQuery } from './columns';
import type { Look } from './TableGrid';
import { TakeAway } from './TakeAway';

interface Props {
  readonly table: TruthTable;
  /** The rows that are shown; null for all. */
  readonly only: Uint32Array | null;
  readonly look: Look;
  readonly onChange: (look: Look) => void;
  readonly hasBus: boolean;
}

/** Most parts whose outputs are offered as columns. */
const MOST_BETWEEN = 200;
/** Which rows of a table are shown, whether buses are numbers, and the table as text. */
export function LookMenu({ table, only, look, onChange, hasBus }: Props) {
  const session = useSession();
  const radix = useSessionState((s) => s.lesson.settings.buses);
  const readOnly = useSessionState((s) => s.readOnly);
  const netlist = useSessionState((s) => s.netlist);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.rootId)!);
  const between = useMemo(() => probeCandidates(sheet, netlist), [sheet, netlist]);
  const names = [...table.inputs, ...table.outputs].map(spokenText);
  const { wanted } = look;
  const want = (next: RowQuery | null) => onChange({ ...look, wanted: next });
  const count = only?.length ?? table.rows;
  const pickColumn = (label: string, value: number, change: (column: number) => void) => (
    <select
      className="field h-8 w-auto min-w-0 flex-1"
      aria-label={label}
      value={value}
      onChange={(event) => change(Number(event.target.value))}
    >
      {names.map((name, column) => (
        <option key={column} value={column}>
          {name}
        </option>
      ))}
    </select>
  );
  const kind = wanted === null ? 'all' : wanted.is === 'differ' ? 'differ' : wanted.letter;
  const first = table.inputs.length;
  const choose = (next: string) => {
    const column = wanted?.column ?? first;
    if (next === 'all') want(null);
    else if (next === 'differ') want({ is: 'differ', column, other: (column + 1) % names.length });
    else want({ is: 'value', column, letter: next as '0' | '1' | 'X' | 'Z' });
  };
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className="cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft">
        Columns and rows
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="menu flex w-80 flex-col gap-3 p-3 text-sm" sideOffset={4} align="end">
          {between.length > 0 && !readOnly && (
            <fieldset className="flex flex-col gap-1">
              <legend className="mb-1 font-semibold">
                Columns in between <span className="font-normal text-quiet">by a probe on the wire</span>
              </legend>
              <div className="grid max-h-36 grid-cols-2 gap-x-3 gap-y-1 overflow-auto">
                {between.slice(0, MOST_BETWEEN).map((one) => (
                  <label key={`${one.part}.${one.port}`} className="flex min-w-0 items-center gap-1.5">
                    <input
                      type="checkbox"
                      className="size-4 shrink-0 accent-accent"
                      checked={one.probe !== null}
                      onChange={(event) => showProbeColumn(session, one, event.target.checked)}
                    />
                    <span className="truncate">{spokenText(one.name)}</span>
                  </label>
                ))}
              </div>
              {between.length > MOST_BETWEEN && (
                <p className="text-xs text-quiet">
                  The first {MOST_BETWEEN} of {between.length} are offered; on any other wire a probe is
                  pinned by the list at the right button.
                </p>
              )}
            </fieldset>
          )}
          <fieldset className="flex flex-col gap-1.5">
            <legend className="mb-1 font-semibold">Rows</legend>
            <select
              className="field h-8"
              aria-label="Rows that are shown"
              value={kind}
              onChange={(event) => choose(event.target.value)}
            >
              <option value="all">all {table.rows}</option>
              <option value="1">those where a column is 1</option>
              <option value="0">those where a column is 0</option>
              <option value="X">those where a column is X</option>
              <option value="Z">those where a column is Z</option>
              <option value="differ">those where two columns differ</option>
            </select>
            {wanted && (
              <div className="flex items-center gap-2">
                {pickColumn('Column', wanted.column, (column) => want({ ...wanted, column }))}
                {wanted.is === 'differ' && (
                  <>
                    <span aria-hidden="true">≠</span>
                    {pickColumn('Other column', wanted.other, (other) => want({ ...wanted, other }))}
                  </>
                )}
              </div>
            )}
            <p className="text-xs text-quiet" aria-live="polite">
              {count === 0 ? 'There is no such row.' : wanted ? `${count} of ${table.rows} rows` : ''}
            </p>
          </fieldset>
          {hasBus && (
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-accent"
                checked={look.asNumbers}
                onChange={(event) => onChange({ ...look, asNumbers: event.target.checked })}
              />
              Buses as one number, {radix === 'signed' ? "two's complement" : radix}
            </label>
          )}
          <TakeAway
            count={count}
            lines={(format) => tableLines(table, format, only)}
            fileName={fileName(sheet.name, '.csv')}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
