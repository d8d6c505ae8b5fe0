'use client';

import { useMemo, useState } from 'react';
import { type Formula, productOf, sumOf } from '@/core/logic/expression/forms';
import { essential, hazards, LEAST_ON_MAP, layoutOf, MOST_ON_MAP } from '@/core/logic/map/map';
import { type Cube, complement, sameCube } from '@/core/logic/minimise/cube';
import { primes } from '@/core/logic/minimise/primes';
import { sameName } from '@/core/values/names';
import { showHazard } from '@/session/changes/time';
import { told } from '@/session/told';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { Marked } from '@/ui/controls/Marked';
import { useFormulas } from '@/ui/derived/useFormulas';
import { Typeset } from '@/ui/formula-text/Typeset';
import { Swatch } from '@/ui/map-board/Swatch';
import { highlightIn, useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { Grouping } from './Grouping';
import { LiveBoard } from './LiveBoard';

/** Which loops are drawn on the map. */
type Shown = 'ones' | 'zeros' | 'primes' | 'own';
const SHOWN: Record<Shown, string> = {
  ones: 'smallest, of the ones',
  zeros: 'smallest, of the zeros',
  primes: 'all prime implicants',
  own: 'grouped by hand',
};

/** The Karnaugh map of one output: its cells, the loops of its terms, and groups drawn by hand, which are judged. */
export function MapFace() {
  const formulas = useFormulas();
  const [chosen, setChosen] = useState('');
  const [shown, setShown] = useState<Shown>('ones');
  const all = formulas.state === 'ready' ? formulas.all : [];
  const formula = all.find((f) => f.name === chosen) ?? all[0];
  const inputs = formula?.names.length ?? 0;
  const fits = inputs >= LEAST_ON_MAP && inputs <= MOST_ON_MAP;
  return (
    <section className="pane" aria-label="Map">
      <Bar className="pane-head">
        <h2 className="font-semibold">Map</h2>
        {all.length > 1 && (
          <div role="tablist" aria-label="Output" className="scrolls flex min-w-0 gap-1 overflow-x-auto">
            {all.map((f) => (
              <button
                key={f.name}
                type="button"
                role="tab"
                aria-selected={f === formula}
                className={`shrink-0 cursor-pointer rounded-full px-2.5 ${f === formula ? 'bg-accent-soft font-semibold text-accent' : 'text-quiet hover:text-ink'}`}
                onClick={() => setChosen(f.name)}
              >
                <Marked text={f.name} />
              </button>
            ))}
          </div>
        )}
        <span className="ml-auto" />
        <Fold way={1} label="More for the map">
          {formula && fits && (
            <select
              className="h-7 rounded-lg border border-hairline bg-raised px-1.5"
              aria-label="Loops"
              {...hint('Which loops are drawn')}
              value={shown}
              onChange={(event) => setShown(event.target.value as Shown)}
            >
              {(Object.keys(SHOWN) as Shown[]).map((one) => (
                <option key={one} value={one}>
                  {SHOWN[one]}
                </option>
              ))}
            </select>
          )}
        </Fold>
      </Bar>
      {formulas.state === 'none' && <p className="p-5 text-quiet">{formulas.reason}</p>}
      {formulas.state === 'working' && <p className="p-5 text-quiet">Working …</p>}
      {formula && !fits && (
        <p className="p-5 text-quiet">
          A map has {LEAST_ON_MAP} to {MOST_ON_MAP} inputs; this sheet has {inputs}.
        </p>
      )}
      {formula && fits && <Mapped key={`${formula.name} ${formula.names}`} formula={formula} shown={shown} />}
    </section>
  );
}

function Mapped({ formula, shown }: { formula: Formula; shown: Shown }) {
  const { fn, names } = formula;
  const [order, setOrder] = useState<readonly number[]>(() => names.map((_, i) => i));
  const layout = useMemo(() => layoutOf(order), [order]);
  const [own, setOwn] = useState<readonly Cube[]>([]);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const loops =
    shown === 'own'
      ? own
      : shown === 'zeros'
        ? formula.zeros.cubes
        : shown === 'primes'
          ? primes(fn)
          : formula.ones.cubes;
  const swap = (a: number, b: number) =>
    setOrder(order.map((input) => (input === a ? b : input === b ? a : input)));
  return (
    <div className="min-h-0 flex-1 overflow-auto p-3">
      <LiveBoard
        formula={formula}
        layout={layout}
        loops={loops}
        picked={shown === 'own' ? picked : null}
        onPick={setPicked}
        onSwap={swap}
        marks={shown === 'ones' ? hazards(loops, fn).map((h) => h.rows) : []}
      />
      {shown === 'own' ? (
        <Grouping fn={fn} names={names} own={own} setOwn={setOwn} picked={picked} setPicked={setPicked} />
      ) : (
        <Legend formula={formula} loops={loops} shown={shown} />
      )}
    </div>
  );
}

/** The product of each loop, the essential ones, and possible glitches. */
function Legend({ formula, loops, shown }: { formula: Formula; loops: readonly Cube[]; shown: Shown }) {
  const pointed = useCrossHighlight((p) => p.pointed);
  const point = useCrossHighlight((p) => p.point);
  const { fn, names } = formula;
  const lit = highlightIn(pointed, formula.name, names);
  const needed = useMemo(() => essential(shown === 'zeros' ? complement(fn) : fn), [fn, shown]);
  const risks = shown === 'ones' ? hazards(loops, fn) : [];
  const session = useSession();
  const isDrawn = useSessionState(
    (s) => !s.readOnly && names.every((name) => s.netlist.inputColumns.some((c) => sameName(c.name, name))),
  );
  const showIt = (row: number, input: number) => showHazard(session, names, row, input);
  const term = (cube: Cube) => (shown === 'zeros' ? productOf([cube], names) : sumOf([cube], names));
  return (
    <>
      <ul className="mt-4 flex flex-wrap gap-x-5 gap-y-1.5">
        {loops.map((cube, i) => (
          <li
            key={`${cube.mask} ${cube.value}`}
            className={`flex items-center gap-2 rounded-md px-1 text-[1.05rem] ${lit && sameCube(lit, cube) ? 'bg-accent-soft' : ''}`}
            onPointerEnter={() => point({ output: formula.name, inputs: names, cube })}
            onPointerLeave={() => point(null)}
          >
            <Swatch index={i} />
            <span>
              <Typeset expression={term(cube)} notation="bar" />
            </span>
            {needed.some((e) => sameCube(e, cube)) && (
              <span
                className="text-xs text-quiet"
                {...hint('Essential: no other group covers one of its ones.')}
              >
                essential
              </span>
            )}
          </li>
        ))}
      </ul>
      {loops.length === 0 && (
        <p className="mt-3 text-sm text-quiet">
          {shown === 'zeros' ? 'There is no 0 here.' : 'There is no 1 here.'}
        </p>
      )}
      {risks.map(({ rows: [a, b], input, remedy }) => (
        <p key={`${a} ${b}`} className="mt-2 text-sm">
          <span className="font-semibold text-bad">A glitch may come</span> when{' '}
          <Marked text={names[input]!} /> changes between rows {a} and {b}: no term holds in both. The term{' '}
          <Typeset expression={sumOf([remedy], names)} notation="bar" /> beside the others removes it.{' '}
          {isDrawn && (
            <button
              type="button"
              className="cursor-pointer rounded-md px-1 text-accent hover:bg-accent-soft"
              {...hint('Lets the input change, with 1 ns a part, in the diagram of time')}
              onClick={() => told(showIt(Math.min(a, b), input))}
            >
              Show it in time
            </button>
          )}
        </p>
      ))}
    </>
  );
}
