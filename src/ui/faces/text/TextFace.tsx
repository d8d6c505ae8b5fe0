'use client';

import { useDeferredValue, useEffect, useMemo, useRef } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { type VerilogLine, verilogLines } from '@/core/formats/verilog/write';
import { drawnLevels } from '@/core/netlist/levels';
import { wiringOf } from '@/core/netlist/sheet-wiring';
import { kindOf } from '@/core/parts/catalogue';
import { counted } from '@/core/values/wording';
import { copyAndSay } from '@/session/page-clipboard';
import { Bar, Fold } from '@/ui/controls/Bar';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';

const SMALL = 'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';
/** So many lines are shown; all of them are copied and saved. */
const MOST_LINES = 2000;

/** The sheet as Verilog, as it is drawn: the lines of the selection are lit, and a press on a line selects its part. */
export function TextFace() {
  const session = useSession();
  const lesson = useSessionState((s) => s.lesson);
  const sheetId = useSessionState((s) => s.sheetId);
  const selected = useSessionState((s) => s.selection.parts);
  // An edit is painted before the text follows.
  const shown = useDeferredValue(lesson);
  const sheet = sheetOf(shown, sheetId) ?? sheetOf(lesson, sheetId)!;
  const lines = useMemo(() => verilogLines(shown, sheet), [shown, sheet]);
  const text = () => lines.map((line) => `${line.text}\n`).join('');
  const name = fileName(sheet.name, '.v');
  const copy = () => copyAndSay(session, text(), `${counted(lines.length, 'line')} are on the clipboard.`);
  return (
    <section className="pane" aria-label="Text">
      <Bar className="pane-head">
        <h2 className="font-semibold">Text</h2>
        <Counts sheet={sheet} />
        <span className="ml-auto" />
        <Fold way={2} label="More for the text">
          <button type="button" className={SMALL} onClick={() => void copy()}>
            Copy
          </button>
          <button type="button" className={SMALL} onClick={() => saveFile(name, text())}>
            Save as Verilog
          </button>
        </Fold>
      </Bar>
      {sheet.parts.size === 0 && (
        <p className="p-5 text-quiet">The sheet as Verilog stands here as soon as a part is placed.</p>
      )}
      {sheet.parts.size > 0 && <Lines lines={lines} selected={selected} />}
      {lines.length > MOST_LINES && (
        <p className="shrink-0 border-t border-hairline px-3 py-1 text-sm text-quiet">
          The first {MOST_LINES} of {lines.length} lines are shown. All of them are copied and saved.
        </p>
      )}
    </section>
  );
}

/** How large the sheet is: its parts, its nets as they are drawn, and the levels of gates. */
function Counts({ sheet }: { sheet: Sheet }) {
  const netlist = useSessionState((s) => (s.rootId === sheet.id ? s.netlist : null));
  const words = useMemo(() => {
    const { parts, groupOfWire } = wiringOf(sheet);
    const nets = new Set([...sheet.wires.keys()].map((wire) => groupOfWire(wire)?.[0])).size;
    const drawn = parts.filter((part) => !kindOf(part).isNote).length;
    const isPlain = netlist && netlist.storage.length === 0 && netlist.looped.length === 0;
    const levels = isPlain ? drawnLevels(netlist) : 0;
    return [counted(drawn, 'part'), counted(nets, 'net'), levels > 0 && counted(levels, 'level')];
  }, [sheet, netlist]);
  return (
    <span className="head-note" data-way={1}>
      {words.filter(Boolean).join(' · ')}
    </span>
  );
}

function Lines({ lines, selected }: { lines: readonly VerilogLine[]; selected: ReadonlySet<string> }) {
  const session = useSession();
  const light = useCrossHighlight((p) => p.light);
  const list = useRef<HTMLOListElement>(null);
  const first = lines.findIndex((line) => line.part !== undefined && selected.has(line.part));
  useEffect(() => {
    if (first >= 0) list.current?.children[first]?.scrollIntoView({ block: 'nearest' });
  }, [first]);
  useEffect(() => () => light(null), [light]);
  return (
    <ol
      data-figure="whole"
      ref={list}
      className="min-h-0 flex-1 overflow-auto py-1.5 font-mono text-[0.8125rem] leading-5 [counter-reset:line]"
      aria-label="Verilog of the sheet"
      onPointerLeave={() => light(null)}
    >
      {lines.slice(0, MOST_LINES).map(({ text, part }, i) => {
        const isLit = part !== undefined && selected.has(part);
        return (
          <li
            key={i}
            className={`flex min-w-max pr-3 [content-visibility:auto] [contain-intrinsic-size:auto_20px] ${isLit ? 'bg-accent-soft' : ''}`}
            aria-current={isLit || undefined}
            onPointerEnter={() => light(part === undefined ? null : new Set([part]))}
          >
            <span className="w-10 shrink-0 pr-3 text-right text-quiet select-none" aria-hidden="true">
              {i + 1}
            </span>
            {part === undefined ? (
              <code className="whitespace-pre">{text}</code>
            ) : (
              <button
                type="button"
                className="cursor-pointer text-left whitespace-pre select-text hover:text-accent"
                onClick={() => session.select({ parts: new Set([part]), wires: new Set() })}
              >
                {text}
              </button>
            )}
          </li>
        );
      })}
    </ol>
  );
}
