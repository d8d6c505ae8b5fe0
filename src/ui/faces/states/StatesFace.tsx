'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { Stepper, stateLabel } from '@/core/logic/table/state-table';
import type { Netlist } from '@/core/netlist/netlist';
import { cyclesOf, cycleText, inputRowText, transientStates } from '@/core/states/cycles';
import { type Machine, machineOf } from '@/core/states/machine';
import { visitedMachine } from '@/core/states/visited';
import { clockEdges } from '@/core/timing/clock-edges';
import { type Logic, letterOf } from '@/core/values/logic';
import { spokenText } from '@/core/values/markup';
import { sentence } from '@/core/values/result';
import { setTimeSetup } from '@/session/changes/time';
import { told } from '@/session/told';
import { Bar, Fold } from '@/ui/controls/Bar';
import { holdKeysFor } from '@/ui/controls/HoldKeys';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { inLayers, onCircle, type Placed, roundOf, STATE } from './place';
import { namesTogether, stateWords, transitionWords } from './words';

const CounterDialog = lazyComponent(
  'the counter dialog',
  () => import('./CounterDialog').then((m) => m.CounterDialog),
  holdKeysFor,
);

/** Above this many states a diagram is unreadable. */
const MOST_DRAWN = 80;
/** Rows of inputs for which the order is told. */
const MOST_ROUNDS = 8;
const VISITS = 60;
/** States passed through that are told one by one. */
const MOST_TOLD = 40;

/** The states of the sheet that runs: their order in words, and the diagram with the present one lit. */
export function StatesFace() {
  const netlist = useSessionState((s) => s.netlist);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.rootId)!);
  const readOnly = useSessionState((s) => s.readOnly);
  const [all, setAll] = useState(false);
  const [isWishing, setWishing] = useState(false);
  const made = useMemo(
    () => machineOf(netlist, { all, labels: labelsOf(netlist, sheet) }),
    [netlist, sheet, all],
  );
  return (
    <section className="pane" aria-label="States">
      <Bar className="pane-head">
        <h2 className="font-semibold">States</h2>
        {made.ok && <span className="text-quiet">{made.value.states.length}</span>}
        <span className="ml-auto" />
        <Fold way={1} label="More for the states">
          {(made.ok || all) && (
            <label className="flex items-center gap-1.5 whitespace-nowrap">
              <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} />
              with unreachable states
            </label>
          )}
          {!readOnly && (
            <button
              type="button"
              className="cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft"
              onClick={() => setWishing(true)}
            >
              Counter from numbers
            </button>
          )}
        </Fold>
      </Bar>
      {made.ok ? <Shown machine={made.value} /> : <Passed problem={sentence(made.problem)} sheet={sheet} />}
      {isWishing && <CounterDialog onClose={() => setWishing(false)} />}
    </section>
  );
}

/** The states that a circuit has passed, where there are too many to explore. */
function Passed({ problem, sheet }: { problem: string; sheet: Sheet }) {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  // Read again when the run rests.
  const now = useSessionState((s) => (s.playing ? 0 : s.now));
  const { trace } = session;
  const machine = useMemo(
    () =>
      visitedMachine(
        netlist,
        trace,
        clockEdges(netlist, trace.begins, now).edges,
        now,
        labelsOf(netlist, sheet),
      ),
    [netlist, trace, now, sheet],
  );
  return (
    <>
      <p className="px-4 py-2 text-sm text-quiet">{problem}</p>
      {machine && <Shown machine={machine} />}
    </>
  );
}

const plain = (names: readonly string[]) => namesTogether(names.map(spokenText));

/** The labels of the bits of storage on the sheet, in the order in which states are explored. */
function labelsOf(netlist: Netlist, sheet: Sheet): string[] | null {
  const made = Stepper.of(netlist);
  return made.ok ? made.value.states.map((name) => stateLabel(sheet, name)) : null;
}

function Shown({ machine }: { machine: Machine }) {
  const session = useSession();
  const plan = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.time);
  const readOnly = useSessionState((s) => s.readOnly);
  const code = useSessionState((s) => machine.nets.map((net) => letterOf(s.values[net] as Logic)).join(''));
  const names = useMemo(() => new Map(plan?.states.map((s) => [s.state, s.name])), [plan?.states]);
  const now = machine.states.findIndex((s) => s.code === code);
  const nameOf = (state: number) => stateWords(machine.states[state]!.code, names);
  const cycles = !machine.isPartial && machine.rows <= MOST_ROUNDS ? cyclesOf(machine) : [];
  const lost = machine.isPartial ? [] : [...transientStates(machine)];
  const rename = (state: string, name: string) => {
    const others = (plan?.states ?? []).filter((s) => s.state !== state);
    const states = name.trim() ? [...others, { state, name: name.trim() }] : others;
    return setTimeSetup(session, { states }, `name the state ${state}`);
  };
  return (
    <div className="flex min-h-0 flex-1 flex-wrap content-start overflow-auto">
      <div className="flex min-w-52 flex-[1_1_13rem] flex-col gap-1 px-4 py-2 text-sm">
        {machine.isPartial && (
          <p>
            <b>Passed so far: </b>
            {machine.states
              .slice(0, MOST_TOLD)
              .map((_, s) => nameOf(s))
              .join(' ')}
            {machine.states.length > MOST_TOLD && ' …'} (
            {machine.states.length === 1 ? 'one state' : `${machine.states.length} states`})
          </p>
        )}
        {cycles.map((cycle) => (
          <p key={cycle.row}>
            {machine.inputs.length > 0 && <b>{inputRowText(machine, cycle.row)}: </b>}
            {cycleText(cycle, nameOf)}
          </p>
        ))}
        {lost.length > 0 && (
          <p>
            <b className="text-bad">No way back</b> to {nameOf(0)} from{' '}
            {lost.slice(0, 12).map(nameOf).join(' ')}
            {lost.length > 12 && ` and ${lost.length - 12} more`}.
          </p>
        )}
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-quiet">
          {machine.inputs.length > 0 && <span>Arrows: {plain(machine.inputs)}</span>}
          <span>bits {plain(machine.bits)}</span>
          {machine.outputs.length > 0 && <span>outputs {plain(machine.outputs)}</span>}
          {now !== -1 && !readOnly && (
            <label className="flex items-center gap-1">
              now called
              <input
                key={`${code} ${names.get(code) ?? ''}`}
                className="h-6 w-24 rounded-md border border-hairline bg-raised px-1 text-ink"
                aria-label="Name of the present state"
                defaultValue={names.get(code) ?? ''}
                placeholder={nameOf(now)}
                maxLength={40}
                onBlur={(event) => {
                  if (event.target.value.trim() !== (names.get(code) ?? ''))
                    told(rename(code, event.target.value));
                }}
                onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
              />
            </label>
          )}
        </p>
        {now === -1 && (
          <p className="text-bad" role="status">
            It stands in {code} now: a state that is only passed through, or that no clock edge leads to.
          </p>
        )}
      </div>
      {machine.states.length <= MOST_DRAWN ? (
        <Diagram machine={machine} now={now} nameOf={nameOf} />
      ) : (
        <p className="px-4 text-quiet">{machine.states.length} states are too many for a readable diagram.</p>
      )}
    </div>
  );
}

interface DiagramProps {
  readonly machine: Machine;
  /** The state of the moment; -1 if it is none of them. */
  readonly now: number;
  readonly nameOf: (state: number) => string;
}

function Diagram({ machine, now, nameOf }: DiagramProps) {
  const words = useMemo(() => machine.transitions.map((arrow) => transitionWords(machine, arrow)), [machine]);
  const [placed, setPlaced] = useState<Placed | null>(null);
  const gone = useVisits(machine, now);
  useEffect(() => {
    let left = false;
    setPlaced(null);
    const order = roundOf(machine);
    if (order) setPlaced(onCircle(machine, order));
    else void inLayers(machine, words).then((made) => !left && setPlaced(made));
    return () => {
      left = true;
    };
  }, [machine, words]);
  if (!placed || placed.states.length !== machine.states.length)
    return (
      <p className="px-4 text-quiet" role="status">
        Laying out the diagram …
      </p>
    );
  return (
    <svg
      className="h-full max-h-full min-h-60 min-w-64 flex-[2_1_18rem] p-1"
      viewBox={`0 0 ${placed.width} ${placed.height}`}
      role="img"
      aria-label={`State diagram: ${machine.states.length} states${now === -1 ? '' : `, now in ${nameOf(now)}`}`}
    >
      <defs>
        {(['ink', 'accent'] as const).map((colour) => (
          <marker
            key={colour}
            id={`state-arrow-${colour}`}
            viewBox="0 0 8 8"
            refX="6"
            refY="4"
            markerWidth="7"
            markerHeight="7"
            orient="auto"
          >
            <path d="M0 0L8 4L0 8z" fill={`var(--${colour})`} />
          </marker>
        ))}
      </defs>
      {machine.transitions.map((arrow, i) => {
        const at = placed.arrows[i]!;
        const colour = gone.has(`${arrow.from} ${arrow.to}`) ? 'accent' : 'ink';
        return (
          <g key={`${arrow.from} ${arrow.to}`}>
            <path
              d={at.path}
              fill="none"
              stroke={`var(--${colour})`}
              strokeWidth={colour === 'accent' ? 2.5 : 1.4}
              strokeDasharray={machine.states[arrow.from]!.reachable ? undefined : '5 4'}
              markerEnd={`url(#state-arrow-${colour})`}
            />
            {words[i] && (
              <text
                x={at.x}
                y={at.y}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize="12"
                fill="var(--ink)"
                stroke="var(--raised)"
                strokeWidth="4"
                paintOrder="stroke"
              >
                {words[i]}
              </text>
            )}
          </g>
        );
      })}
      {machine.states.map((state, s) => {
        const { x, y } = placed.states[s]!;
        const isNow = s === now;
        const name = nameOf(s);
        return (
          <g key={state.code}>
            <circle
              cx={x}
              cy={y}
              r={STATE}
              fill={isNow ? 'var(--one-soft)' : 'var(--raised)'}
              stroke={isNow ? 'var(--one)' : 'var(--ink)'}
              strokeWidth={isNow ? 4 : 1.6}
              strokeDasharray={state.reachable ? undefined : '5 4'}
            />
            <text
              x={x}
              y={y - (state.outputs ? 3 : 0)}
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={name.length > 5 ? 11 : 17}
              fontWeight="700"
              fill="var(--ink)"
            >
              {name.length > 9 ? `${name.slice(0, 8)}…` : name}
            </text>
            {state.outputs && state.outputs.length <= 8 && (
              <text
                x={x}
                y={y + 14}
                textAnchor="middle"
                fontSize="9.5"
                fill="var(--quiet)"
                fontFamily="monospace"
              >
                {state.outputs}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

/** The ways that were gone while the face was open, as `from to`. */
function useVisits(machine: Machine, now: number): ReadonlySet<string> {
  const last = useRef<{ machine: Machine; state: number } | null>(null);
  const [gone, setGone] = useState<readonly string[]>([]);
  useEffect(() => {
    const was = last.current;
    last.current = now === -1 ? was : { machine, state: now };
    if (was?.machine !== machine) setGone([]);
    else if (now !== -1 && was.state !== now) setGone((g) => [...g.slice(1 - VISITS), `${was.state} ${now}`]);
  }, [machine, now]);
  return new Set(gone);
}
