'use client';

import { useMemo, useState } from 'react';
import type { Params, Part } from '@/core/circuit/sheet';
import { type AlonePart, alone, type OwnTable, ownTable, rowOfOwn } from '@/core/logic/table/own-table';
import { ANY } from '@/core/logic/table/short-lines';
import { type Column, sourceKey } from '@/core/netlist/netlist';
import { kindOf } from '@/core/parts/catalogue';
import type { PartKind } from '@/core/parts/part-kind';
import { Run } from '@/core/simulate/run';
import { type Logic, ONE, ZERO } from '@/core/values/logic';
import { Marked } from '@/ui/controls/Marked';
import { useSessionState } from '@/ui/session/session-context';
import { Panel } from './Panel';
import type { PopoverPlace } from './SheetPopover';

/** A part of the sheet: its words, its own table, and the row that is active now. */
export function OwnTableOfPart({ part, ...at }: PopoverPlace & { part: Part }) {
  const kind = kindOf(part);
  const view = useSessionState((s) => s.view);
  const values = useSessionState((s) => s.values);
  const own = useMemo(() => alone(kind, part.params), [kind, part.params]);
  const table = useMemo(() => own && ownTable(own), [own]);
  const pinValue = (port: string, bit: number): Logic => {
    const net = view.ownNet(part.id, port, bit);
    return net === undefined ? 2 : (values[net] as Logic);
  };
  return (
    <Panel label={`${kind.name}: its own table`} width="w-80" {...at}>
      <Words kind={kind} params={part.params} />
      {own && table && <Rows table={table} now={activeRow(own, table, pinValue)} />}
      {!table && <NoTable />}
    </Panel>
  );
}

/** A kind of part by itself, before it is placed: its inputs are set here. */
export function OwnTableOfKind({ kind, params }: { kind: PartKind; params: Params }) {
  const own = useMemo(() => alone(kind, params), [kind, params]);
  const table = useMemo(() => own && ownTable(own), [own]);
  const run = useMemo(() => own && new Run(own.netlist, { delays: 'zero' }), [own]);
  const [on, setOn] = useState<ReadonlySet<string>>(new Set());
  if (!own || !run || !table)
    return (
      <>
        <Words kind={kind} params={params} />
        <NoTable />
      </>
    );
  const flip = (column: Column) => {
    const key = sourceKey(column);
    const next = new Set(on);
    if (!next.delete(key)) next.add(key);
    run.set([[column.nets[0], next.has(key) ? ONE : ZERO]]);
    setOn(next);
  };
  const pinValue = (port: string, bit: number): Logic => valueAlone(own, run, port, bit);
  return (
    <>
      <Words kind={kind} params={params} />
      <div className="flex flex-wrap gap-1">
        {own.netlist.inputColumns.map((c) => {
          const key = sourceKey(c);
          return (
            <button
              key={key}
              type="button"
              className="button small font-mono"
              aria-pressed={on.has(key)}
              onClick={() => flip(c)}
            >
              <Marked text={c.name} /> {on.has(key) ? 1 : 0}
            </button>
          );
        })}
      </div>
      <Rows table={table} now={activeRow(own, table, pinValue)} />
    </>
  );
}

/** The value at a port of the part that stands by itself. */
function valueAlone(own: AlonePart, run: Run, port: string, bit: number): Logic {
  const net = own.netlist.ownNet('part', port, bit);
  return net === undefined ? 2 : (run.values[net] as Logic);
}

/** The row of a part's table in which its inputs, and for storage its state, now are; -1 where a bit is unknown. */
function activeRow(own: AlonePart, table: OwnTable, pinValue: (port: string, bit: number) => Logic): number {
  const names = new Map<string, [string, number]>();
  for (const part of own.sheet.parts.values()) {
    if (part.id === 'part') continue;
    const width = (part.params.width as number) ?? 1;
    for (let bit = 0; bit < width; bit++)
      names.set(width === 1 ? part.label : `${part.label}[${bit}]`, [part.label, bit]);
  }
  return rowOfOwn(table, (i) => {
    // A state shows at the output of the same name, or at the only one.
    const port = names.get(i < table.states ? stateOutput(own, i) : table.inputs[i]!);
    return port ? pinValue(...port) : 2;
  });
}

/** The output at which the n-th state bit of a part shows. */
function stateOutput(own: AlonePart, index: number): string {
  const outputs = own.netlist.outputColumns.map((c) => c.name);
  return outputs[index] ?? outputs[0] ?? '';
}

function Words({ kind, params }: { kind: PartKind; params: Params }) {
  return (
    <p>
      <b>{kind.spoken(params)}</b> <span className="text-quiet">{kind.says}</span>
    </p>
  );
}

function NoTable() {
  return <p className="text-quiet">Its table is too large to read at a glance.</p>;
}

function Rows({ table, now }: { table: OwnTable; now: number }) {
  const border = (i: number) => (i === table.inputs.length ? 'border-l border-hairline' : '');
  return (
    <table className="w-full text-center font-mono">
      <thead>
        <tr className="border-b border-ink font-sans">
          {[...table.inputs, ...table.outputs].map((name, i) => (
            <th key={name} scope="col" className={`px-1 ${border(i)}`}>
              <Marked text={name} />
            </th>
          ))}
          {table.words.length > 0 && (
            <th scope="col">
              <span className="sr-only">what it does</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {table.rows.map((row, r) => (
          <tr
            key={r}
            className={r === now ? 'bg-one-soft font-bold' : ''}
            aria-current={r === now || undefined}
          >
            {row.map((value, c) => (
              <td key={c} className={`px-1 ${border(c)} ${value === ANY ? 'text-quiet' : ''}`}>
                {value}
              </td>
            ))}
            {table.words.length > 0 && <td className="px-1 text-left font-sans">{table.words[r]}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
