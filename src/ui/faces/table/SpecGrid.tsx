import { type KeyboardEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { OPEN_CELL, type SpecTable } from '@/core/circuit/spec-table';
import { withColumnAt } from '@/core/logic/specification/spec-edits';
import { columnFromText } from '@/core/logic/specification/spec-formulas';
import { specFromText, specLines, withCells } from '@/core/logic/specification/spec-text';
import { inputAt } from '@/core/logic/table/truth-table';
import { sentence } from '@/core/values/result';
import { goToNamedRow } from '@/session/changes/columns';
import { fillCell, setSpec } from '@/session/changes/table';
import { rowOfNames } from '@/session/moment';
import { told } from '@/session/told';
import { hint } from '@/ui/controls/hint';
import { Marked } from '@/ui/controls/Marked';
import { type CircuitColumns, differs } from '@/ui/derived/circuit-columns';
import { FormulaField } from '@/ui/formula-text/FormulaField';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { GridFrame, ONE_LINE } from './GridFrame';
import { MovableHeading } from './MovableHeading';
import { rowLook, useRows } from './useRows';

const ROW = 31;

/** A cell of the table that is filled in. */
export interface At {
  readonly row: number;
  readonly output: number;
}

const NEXT: Readonly<Record<string, string>> = { '0': '1', '1': 'x', x: '0', [OPEN_CELL]: '1' };

interface PlanGridProps {
  readonly plan: SpecTable;
  /** The cell that is gone on from. */
  readonly start: At;
  /** Whether the person has just begun it, and goes on in it. */
  readonly isBegun: boolean;
  readonly circuit: CircuitColumns | null;
  /** Whether the circuit's columns are hidden in untried rows. */
  readonly isHidden: boolean;
  readonly onDraw: () => void;
  readonly onNames: () => void;
}

/** The rows: inputs, then for each output the filled-in cell, and beside it the circuit's value. */
export function SpecGrid({ plan, start, isBegun, circuit, isHidden, onDraw, onNames }: PlanGridProps) {
  const session = useSession();
  const rowsOfAll = 2 ** plan.inputs.length;
  const live = useSessionState((s) =>
    circuit ? rowOfNames(plan.inputs, s.netlist.inputColumns, s.values) : -1,
  );
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useRows(scroller, rowsOfAll, ROW);
  const [at, setAt] = useState<At>(start);
  const [said, setSaid] = useState<number | null>(null);
  const painting = useRef<{ letter: string; output: number } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another place asks for scrolling
  useEffect(() => rows.reveal(at.row), [at.row]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another live row asks for scrolling
  useEffect(() => {
    if (live >= 0) rows.reveal(live);
  }, [live]);
  // A table that was begun by hand is typed into at once, from its first cell on.
  const names = [...plan.inputs, ...plan.outputs.map((o) => o.name)].sort().join();
  const begun = useRef(isBegun ? null : names);
  // Before any key can come: the first would go on from the cell of the table before.
  useLayoutEffect(() => {
    if (begun.current === names) return;
    scroller.current?.focus();
    if (begun.current !== null) setAt({ row: 0, output: 0 });
    begun.current = names;
  }, [names]);

  /** Puts a column in another place among its kind. */
  const moveTo = (kind: readonly string[]) => (name: string, to: number) => {
    if (kind.includes(name)) told(setSpec(session, withColumnAt(plan, name, to), 'move a column'));
  };
  const put = (output: number, row: number, letter: string) => {
    if (plan.outputs[output]!.rows[row] !== letter)
      told(fillCell(session, plan.outputs[output]!.name, row, letter));
  };
  const go = (row: number, output: number) =>
    setAt({
      row: Math.max(0, Math.min(rowsOfAll - 1, row)),
      output: Math.max(0, Math.min(plan.outputs.length - 1, output)),
    });
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== scroller.current || event.ctrlKey || event.metaKey || event.altKey) return;
    const { row, output } = at;
    const { key } = event;
    if (key.startsWith('Arrow') || key === 'Home' || key === 'End') session.endStep();
    if (key === 'ArrowDown') go(row + 1, output);
    else if (key === 'ArrowUp') go(row - 1, output);
    else if (key === 'ArrowRight') go(row, output + 1);
    else if (key === 'ArrowLeft') go(row, output - 1);
    else if (key === 'Home') go(0, output);
    else if (key === 'End') go(rowsOfAll - 1, output);
    else if (key === 'Enter') onDraw();
    else if (key === 'F2') onNames();
    else if (key === ' ') put(output, row, NEXT[plan.outputs[output]!.rows[row]!]!);
    else if (key === 'Backspace' || key === 'Delete') {
      put(output, row, OPEN_CELL);
      if (key === 'Backspace') go(row - 1, output);
    } else if (['0', '1', 'x', 'X', '-', '.'].includes(key)) {
      put(output, row, key === 'X' || key === '-' ? 'x' : key);
      // Down the column, and on at the top of the next one.
      if (row + 1 < rowsOfAll) go(row + 1, output);
      else if (output + 1 < plan.outputs.length) go(0, output + 1);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const numbers = Math.max(2.5, String(rowsOfAll - 1).length * 0.5 + 1.25);
  const columns = `${numbers}rem repeat(${plan.inputs.length}, minmax(2.6rem, 1fr)) repeat(${plan.outputs.length}, minmax(4.4rem, 1.4fr))`;
  return (
    <>
      {said !== null && plan.outputs[said] && (
        <ColumnLine key={said} plan={plan} output={said} onDone={() => setSaid(null)} />
      )}
      <GridFrame
        ref={scroller}
        aria-label="Table to fill in"
        aria-rowcount={rowsOfAll + 1}
        aria-activedescendant={`plan-${at.row}-${at.output}`}
        onKeyDown={onKey}
        onCopy={(event) => {
          event.preventDefault();
          event.clipboardData.setData('text/plain', [...specLines(plan, 'tsv')].join('\n'));
          session.say('The table is on the clipboard.');
        }}
        onPaste={(event) => {
          event.preventDefault();
          const text = event.clipboardData.getData('text/plain');
          const made = withCells(plan, at.output, at.row, text);
          const whole = made.ok ? null : specFromText(text);
          if (made.ok) told(setSpec(session, made.value, 'paste into the table'));
          else if (whole?.ok) told(setSpec(session, whole.value, 'paste a table'));
          else session.say(sentence(made.problem), 'bad');
        }}
        onPointerUp={() => {
          painting.current = null;
        }}
        onPointerLeave={() => {
          painting.current = null;
        }}
        headClass={ONE_LINE}
        headStyle={{ gridTemplateColumns: columns }}
        height={rows.height}
        head={
          <>
            <span role="columnheader" className="px-2 text-xs font-normal text-quiet">
              row
            </span>
            {plan.inputs.map((name, i) => (
              <MovableHeading
                key={name}
                id={name}
                index={i}
                count={plan.inputs.length}
                className="truncate px-1 text-center"
                onMove={moveTo(plan.inputs)}
              >
                <Marked text={name} />
              </MovableHeading>
            ))}
            {plan.outputs.map(({ name }, o) => (
              <MovableHeading
                key={name}
                id={name}
                index={o}
                count={plan.outputs.length}
                className="border-l border-hairline"
                onMove={moveTo(plan.outputs.map((one) => one.name))}
              >
                <span className="flex items-end justify-center gap-1 px-1">
                  <span className="truncate">
                    <Marked text={name} />
                  </span>
                  <button
                    type="button"
                    className="cursor-pointer rounded px-1 font-normal text-accent italic hover:bg-accent-soft"
                    {...hint(`Fill ${name} by a formula, or by the rows at which it is 1`)}
                    aria-label={`Fill ${name} by a formula`}
                    onClick={() => setSaid(said === o ? null : o)}
                  >
                    f
                  </button>
                </span>
              </MovableHeading>
            ))}
          </>
        }
      >
        {rows.shown.map(({ row, top }) => (
          <div
            key={row}
            role="row"
            aria-rowindex={row + 2}
            data-row={row}
            data-live={row === live || undefined}
            className={`absolute inset-x-0 grid items-center ${rowLook(row, row === live)}`}
            style={{ gridTemplateColumns: columns, height: ROW, top }}
          >
            <span role="rowheader" className="px-2 text-right font-mono text-xs text-quiet">
              {row}
            </span>
            {plan.inputs.map((name, i) => (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the grid takes the keys, and the rows have them in the bar
              <span
                key={name}
                role="gridcell"
                className={`text-center value-text ${circuit ? 'cursor-pointer' : ''}`}
                onClick={() => circuit && goToNamedRow(session, plan.inputs, row)}
              >
                {inputAt(plan.inputs.length, i, row)}
              </span>
            ))}
            {plan.outputs.map((o, output) => {
              const letter = o.rows[row]!;
              const seen = circuit ? circuit.seen(output, row) : null;
              const done = circuit ? circuit.letter(output, row) : null;
              const isShown = !isHidden || seen !== null;
              const isWrong = differs(letter, seen) || (isShown && differs(letter, done));
              const isHere = at.row === row && at.output === output;
              return (
                <span
                  key={o.name}
                  id={`plan-${row}-${output}`}
                  role="gridcell"
                  className={`flex h-full cursor-cell items-center justify-center border-l border-hairline text-center value-text ${
                    isHere ? 'outline-2 -outline-offset-2 outline-hairline group-focus:outline-accent' : ''
                  } ${isWrong ? 'bg-[color-mix(in_srgb,var(--bad)_14%,transparent)]' : ''}`}
                  onPointerDown={(event) => {
                    event.currentTarget.releasePointerCapture(event.pointerId);
                    if (!isHere || document.activeElement !== scroller.current) {
                      setAt({ row, output });
                      if (circuit) goToNamedRow(session, plan.inputs, row);
                      return;
                    }
                    const next = NEXT[letter]!;
                    painting.current = { letter: next, output };
                    put(output, row, next);
                  }}
                  onPointerEnter={() => {
                    const brush = painting.current;
                    if (brush && brush.output === output) put(output, row, brush.letter);
                  }}
                >
                  <span className={letter === '1' ? 'font-bold' : letter === OPEN_CELL ? 'text-quiet' : ''}>
                    <span className="sr-only">{o.name}: </span>
                    {letter === OPEN_CELL ? (
                      <>
                        <span className="sr-only">open</span>
                        <span aria-hidden="true">·</span>
                      </>
                    ) : (
                      letter
                    )}
                  </span>
                  {circuit && <Found filled={letter} seen={seen} done={isShown ? done : null} />}
                </span>
              );
            })}
          </div>
        ))}
      </GridFrame>
    </>
  );
}

interface FoundProps {
  readonly filled: string;
  /** The value that was seen when the row was tried; null if it was not. */
  readonly seen: string | null;
  /** The circuit's value; null where it is not known, or not to be shown yet. */
  readonly done: string | null;
}

/** What was seen, and what the circuit does, beside the filled-in value: in full only where they say something else. */
function Found({ filled, seen, done }: FoundProps) {
  const others = [...new Set([seen, done])].filter((l) => l !== null && l !== filled && filled !== 'x');
  const isWrong =
    differs(filled, seen) || differs(filled, done) || (seen !== null && done !== null && seen !== done);
  return (
    <>
      <span className="sr-only">
        {seen === null ? '' : ` seen ${seen}`}
        {done === null ? '' : ` the circuit does ${done}`}
      </span>
      <span
        className={`relative w-0 text-[0.87em] whitespace-nowrap ${isWrong ? 'font-bold text-bad' : 'text-quiet'}`}
        aria-hidden="true"
      >
        <span className="absolute top-1/2 left-1.5 -translate-y-1/2" data-hint={wordsOf(seen, done)}>
          {others.length > 0 ? `${isWrong ? '≠ ' : ''}${others.join(' ')}` : seen !== null && <Tick />}
        </span>
      </span>
    </>
  );
}

const wordsOf = (seen: string | null, done: string | null) =>
  [seen !== null && `tried: ${seen}`, done !== null && `the circuit does ${done}`].filter(Boolean).join(', ');

/** The mark of a value that was seen on the circuit and is as it was filled in. */
const Tick = () => (
  <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
    <path d="M1.5 6 4.5 9 9.5 2.5" fill="none" stroke="var(--good)" strokeWidth="1.8" />
  </svg>
);

/** A line in which a column is said by a formula or by its rows. */
function ColumnLine({ plan, output, onDone }: { plan: SpecTable; output: number; onDone: () => void }) {
  const session = useSession();
  const { name } = plan.outputs[output]!;
  return (
    <div className="border-b border-hairline px-3 py-2">
      <FormulaField
        before={
          <span className="shrink-0 font-semibold">
            <Marked text={name} /> =
          </span>
        }
        label={`${name}, by a formula or by its rows`}
        placeholder="formula, or 1, 3-5"
        button="Fill"
        inputs={plan.inputs}
        read={(text) => columnFromText(plan, output, text)}
        onTake={(made) => {
          if (setSpec(session, made, `fill in ${name}`).ok) onDone();
        }}
        onLeave={onDone}
      />
    </div>
  );
}
