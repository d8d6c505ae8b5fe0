'use client';

import { type ReactNode, useEffect, useRef, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Plan } from '@/core/circuit/plan';
import { plannedFromText } from '@/core/logic/plan-text';
import { namesLine, openCells, plannedFor, rowOrder } from '@/core/logic/planned';
import type { TruthTable } from '@/core/logic/truth-table';
import type { DrawnAs } from '@/core/synthesis/from-plan';
import { goToWantedRow } from '@/session/face-commands';
import { rowNow } from '@/session/moment';
import { type Drawing, drawPlan, setPlan } from '@/session/plan-commands';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { type Beside, beside, differing } from './compared';
import { DrawBar } from './DrawBar';
import { PlanGrid } from './PlanGrid';

/** Between two rows of a walk, in ms. */
const PACES = [200, 700, 2000] as const;

/**
 * The table that is filled in by hand, beside what the circuit does: to draw the circuit from it, or to predict first
 * and compare with what is tried.
 */
export function PlannedFace({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const plan = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan);
  const isExercise = useSessionState((s) => s.lesson.exercise !== null);
  const derived = useSessionState((s) => (s.table.state === 'ready' ? s.table.table : null));
  const tried = useSessionState((s) => s.tried);
  const [isHidden, setHidden] = useState(false);
  const [naming, setNaming] = useState(plan === undefined);
  const [drawnAs, setDrawnAs] = useState<DrawnAs>({ form: 'sop', mostInputs: 8, isShared: true });
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const draw = (as = drawnAs) => {
    if (!plan || isExercise || drawing) return;
    setDrawnAs(as);
    const going = drawPlan(session, as);
    setDrawing(going);
    void going?.done.finally(() => setDrawing(null));
  };
  useEffect(() => () => drawing?.cancel(), [drawing]);
  const order = plan && derived ? rowOrder(plan, derived.inputs) : null;
  const circuit = plan && derived && order ? beside(plan, derived, order, tried) : null;
  const wrong = circuit ? differing(plan!, circuit, isHidden) : [];
  return (
    <section className="pane" aria-label="Truth table">
      <header className="pane-head">
        <h2 className="font-semibold">Truth table</h2>
        {plan && <Count plan={plan} circuit={circuit} wrong={wrong} tried={isHidden ? tried.size : null} />}
        <span className="ml-auto flex shrink-0 gap-0.5">
          {circuit && (
            <HeadButton
              isOn={isHidden}
              onClick={() => setHidden(!isHidden)}
              title="Hide what the circuit does until a row has been tried on it: predict first, then observe"
            >
              Predict
            </HeadButton>
          )}
          {circuit && <Walk plan={plan!} />}
          {plan && (
            <HeadButton
              isOn={naming}
              onClick={() => setNaming(!naming)}
              title="Change the inputs and outputs"
            >
              Names
            </HeadButton>
          )}
          <HeadButton
            onClick={() => {
              if (plan) {
                setPlan(session, undefined);
                session.say('The table that was filled in is gone.', 'calm', () => session.undo());
              }
              onClose();
            }}
            title="Do away with the table that was filled in"
          >
            {plan ? 'Remove' : 'Cancel'}
          </HeadButton>
        </span>
      </header>
      {(naming || !plan) && <Names plan={plan} derived={derived} onDone={() => setNaming(false)} />}
      {plan && (
        <PlanGrid
          plan={plan}
          circuit={circuit}
          isHidden={isHidden}
          onDraw={() => draw()}
          onNames={() => setNaming(true)}
        />
      )}
      {plan && !circuit && derived && (
        <p className="border-t border-hairline px-3 py-1.5 text-sm text-quiet">
          The circuit’s inputs are {derived.inputs.join(', ')}: it cannot be compared row by row.
        </p>
      )}
      {plan && !isExercise && (
        <DrawBar
          plan={plan}
          isSame={circuit !== null && wrong.length === 0 && circuit.isWhole}
          drawnAs={drawnAs}
          onChange={setDrawnAs}
          onDraw={draw}
          onStop={
            drawing &&
            (() => {
              drawing.cancel();
              setDrawing(null);
            })
          }
        />
      )}
    </section>
  );
}

function HeadButton({
  children,
  isOn = false,
  onClick,
  title,
}: {
  children: ReactNode;
  isOn?: boolean;
  onClick: () => void;
  title: string;
}) {
  return (
    <button
      type="button"
      className={`shrink-0 cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft ${isOn ? 'bg-accent-soft' : ''}`}
      aria-pressed={isOn}
      onClick={onClick}
      title={title}
    >
      {children}
    </button>
  );
}

interface CountProps {
  readonly plan: Plan;
  readonly circuit: Beside | null;
  readonly wrong: readonly number[];
  readonly tried: number | null;
}

/** How the table stands: what is open, how many rows the circuit does otherwise. A press leads to the next of them. */
function Count({ plan, circuit, wrong, tried }: CountProps) {
  const session = useSession();
  const live = useSessionState((s) => rowNow(s.netlist, s.values));
  const open = openCells(plan);
  if (wrong.length > 0)
    return (
      <button
        type="button"
        className="cursor-pointer truncate rounded-md px-1 font-semibold text-bad hover:bg-accent-soft"
        onClick={() => goToWantedRow(session, plan.inputs, wrong.find((row) => row > live) ?? wrong[0]!)}
        title="To the next row that differs"
      >
        {wrong.length} {wrong.length === 1 ? 'row differs' : 'rows differ'}
      </button>
    );
  const words = [
    tried !== null && `${tried} of ${2 ** plan.inputs.length} tried`,
    open > 0 && `${open} open`,
    circuit?.isWhole && open === 0 && tried === null && 'all rows agree',
  ].filter(Boolean);
  return <span className="truncate text-quiet">{words.join(' · ')}</span>;
}

/** Passes through all rows on the live circuit, one after the other, at a pace that can be changed on the way. */
function Walk({ plan }: { plan: Plan }) {
  const session = useSession();
  const [isGoing, setGoing] = useState(false);
  const [pace, setPace] = useState<number>(PACES[1]);
  const next = useRef(0);
  useEffect(() => {
    if (!isGoing) return;
    const step = () => {
      if (next.current >= 2 ** plan.inputs.length) setGoing(false);
      else goToWantedRow(session, plan.inputs, next.current++);
    };
    if (next.current === 0) step();
    const timer = setInterval(step, pace);
    return () => clearInterval(timer);
  }, [isGoing, pace, plan.inputs, session]);
  return (
    <>
      {isGoing && (
        <select
          className="h-6 rounded-md border border-hairline bg-raised px-1"
          aria-label="Pace of the walk"
          value={pace}
          onChange={(event) => setPace(Number(event.target.value))}
        >
          {PACES.map((ms) => (
            <option key={ms} value={ms}>
              {ms / 1000} s a row
            </option>
          ))}
        </select>
      )}
      <HeadButton
        isOn={isGoing}
        onClick={() => {
          next.current = 0;
          setGoing(!isGoing);
        }}
        title="Try all rows on the circuit, one after the other"
      >
        {isGoing ? 'Stop' : 'Try all'}
      </HeadButton>
    </>
  );
}

/** The line of names that begins a table or changes it. */
function Names({
  plan,
  derived,
  onDone,
}: {
  plan: Plan | undefined;
  derived: TruthTable | null;
  onDone: () => void;
}) {
  const session = useSession();
  const offered = plan
    ? namesLine(plan)
    : derived
      ? `${derived.inputs.join(', ')} = ${derived.outputs.join(', ')}`
      : '';
  const [line, setLine] = useState(offered);
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const [isOpen, setOpen] = useState(false);
  const typed = line
    .split('=')[0]!
    .split(',')
    .map((name) => name.trim());
  const added = plan ? typed.filter((name) => name && !plan.inputs.includes(name)) : [];
  const hint = !plan
    ? 'Or paste a whole table from a spreadsheet here.'
    : added.length === 0
      ? 'What is filled in stays with its names.'
      : isOpen
        ? `What is filled in stays where ${added.join(' and ')} ${added.length === 1 ? 'is' : 'are'} 0.`
        : `What is filled in stays, and holds for ${added.join(', ')} at 0 and at 1.`;
  const take = () => {
    const made = plannedFor(line, plan ?? null, isOpen ? 'open' : 'copied');
    if (!made.ok) {
      setProblem(made.problem);
      return;
    }
    setPlan(session, made.plan);
    onDone();
  };
  return (
    <form
      className="border-b border-hairline px-3 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <label className="text-sm">
        Inputs = outputs
        <span className="mt-1 flex gap-2">
          <input
            ref={field}
            className="field"
            value={line}
            placeholder="Key, Bars, Clear = Drive, Warn"
            spellCheck={false}
            onChange={(event) => {
              setLine(event.target.value);
              setProblem(null);
            }}
            onPaste={(event) => {
              const text = event.clipboardData.getData('text/plain');
              if (!/[\r\n]/.test(text.trim())) return;
              event.preventDefault();
              const made = plannedFromText(text);
              if (!made.ok) setProblem(made.problem);
              else {
                setPlan(session, made.plan);
                onDone();
              }
            }}
            onKeyDown={(event) => event.key === 'Escape' && plan && onDone()}
          />
          <button type="submit" className="button main">
            {plan ? 'Change' : 'Begin'}
          </button>
        </span>
      </label>
      {added.length > 0 && (
        <label className="mt-1.5 flex items-center gap-1.5 text-sm">
          <input type="checkbox" checked={isOpen} onChange={(event) => setOpen(event.target.checked)} />
          leave open where {added.length === 1 ? `${added[0]} is` : 'one of them is'} 1
        </label>
      )}
      {problem ? (
        <p role="alert" className="mt-1 text-sm text-bad">
          {problem}
        </p>
      ) : (
        <p className="mt-1 text-sm text-quiet">{hint}</p>
      )}
    </form>
  );
}
