'use client';

import type { BenchAsked, BenchTask } from '@/core/exercise/kinds/bench';
import {
  BEGINNINGS,
  type Beginning,
  drawingToWire,
  functionToBuild,
} from '@/core/exercise/kinds/bench/set-up';
import { GUIDES, type Guide } from '@/core/exercise/rules';
import { readStock } from '@/core/formats/stock-csv';
import { numberText } from '@/core/packages/units';
import { done, type Result, sentence } from '@/core/values/result';
import { ExpectedFields, expectedOf, type Ways, waysFrom } from './ExpectedFields';
import { type FormProps, later, type TaskForm } from './task-form';

interface Draft extends Ways {
  readonly asked: BenchAsked;
  readonly begins: Beginning;
  /** The drawer, as it is typed. */
  readonly drawer: string;
}

const DOES: Readonly<Record<BenchAsked['does'], string>> = {
  wire: 'The student wires this drawing',
  build: 'The student gets the function, without the drawing',
};

const BEGINS: Readonly<Record<Beginning, string>> = {
  nothing: 'an empty board',
  packages: 'the packages of this board, without its wires',
  whole: 'this board as it stands, hidden faults too',
};

const GUIDED: Readonly<Record<Guide, string>> = {
  lays: 'shows the next wire and lays it on request',
  shows: 'shows the next wire, and which is wrong',
  none: 'stays away',
};

const textOf = (stock: BenchAsked['stock']): string =>
  stock?.map(({ type, count }) => `${count} x ${numberText(type)}`).join(', ') ?? '';

/** The packages that are typed; null for enough of each. */
function stockOf(drawer: string): Result<BenchAsked['stock']> {
  return drawer.trim() ? readStock(drawer) : done(null);
}

interface FieldsProps {
  readonly asked: BenchAsked;
  readonly onAsked: (asked: BenchAsked) => void;
  readonly drawer: string;
  readonly onDrawer: (drawer: string) => void;
}

/** What the guide does, and which packages there are. */
function BenchFields({ asked, onAsked, drawer, onDrawer }: FieldsProps) {
  const stock = stockOf(drawer);
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-2">
      <label className="flex flex-col gap-1">
        <span className="font-semibold">The guide</span>
        <select
          className="field"
          value={asked.guide}
          onChange={(event) => onAsked({ ...asked, guide: event.target.value as Guide })}
        >
          {GUIDES.map((one) => (
            <option key={one} value={one}>
              {GUIDED[one]}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Drawer</span>
        <input
          className="field w-64 font-mono"
          placeholder="enough of each, or 2 x 7408, 1 x 7404"
          value={drawer}
          aria-invalid={!stock.ok}
          onChange={(event) => onDrawer(event.target.value)}
        />
      </label>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Most packages</span>
        <input
          className="field w-24"
          type="number"
          min={0}
          placeholder="any"
          value={asked.most ?? ''}
          onChange={({ target: { value } }) =>
            onAsked({ ...asked, most: value === '' ? null : Math.max(0, Math.round(Number(value))) })
          }
        />
      </label>
      {!stock.ok && (
        <p role="alert" className="basis-full text-sm text-bad">
          {sentence(stock.problem)}
        </p>
      )}
    </div>
  );
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { asked, begins, drawer } = draft;
  const { board } = source.sheet;
  const hasBoard = board !== undefined && board.packages.length + board.wires.length > 0;
  return (
    <>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {(['wire', 'build'] as const).map((one) => (
          <label key={one} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="does"
              checked={asked.does === one}
              onChange={() => onDraft({ ...draft, asked: { ...asked, does: one } })}
            />
            {DOES[one]}
          </label>
        ))}
      </div>
      <ExpectedFields source={source} ways={draft} onWays={(ways) => onDraft({ ...draft, ...ways })} />
      {asked.does === 'wire' && hasBoard && (
        <label className="flex flex-wrap items-center gap-2">
          <span className="font-semibold">The student begins with</span>
          <select
            className="field"
            value={begins}
            onChange={(event) => onDraft({ ...draft, begins: event.target.value as Beginning })}
          >
            {BEGINNINGS.map((one) => (
              <option key={one} value={one}>
                {BEGINS[one]}
              </option>
            ))}
          </select>
        </label>
      )}
      <BenchFields
        asked={asked}
        onAsked={(next) => onDraft({ ...draft, asked: next })}
        drawer={drawer}
        onDrawer={(next) => onDraft({ ...draft, drawer: next })}
      />
    </>
  );
}

export const benchForm: TaskForm<Draft> = {
  kind: 'bench',
  begin(source) {
    const stock = source.sheet.chips?.stock ?? null;
    return {
      ...waysFrom(source),
      asked: { does: 'wire', guide: 'shows', stock, most: null },
      begins: source.sheet.board ? 'packages' : 'nothing',
      drawer: textOf(stock),
    };
  },
  Form,
  Later: later<BenchTask>(({ task, onTask }) => {
    const { asked } = task;
    return (
      <BenchFields
        asked={asked}
        onAsked={(next) => onTask({ asked: next })}
        drawer={textOf(asked.stock)}
        onDrawer={(drawer) => {
          const stock = stockOf(drawer);
          if (stock.ok) onTask({ asked: { ...asked, stock: stock.value } });
        }}
      />
    );
  }),
  finish(source, { asked: open, begins, drawer, ...ways }) {
    const expected = expectedOf(ways);
    if (!expected.ok) return expected;
    const stock = stockOf(drawer);
    if (!stock.ok) return stock;
    const asked = { ...open, stock: stock.value };
    const given =
      asked.does === 'wire'
        ? drawingToWire(source, begins, asked)
        : functionToBuild(source, expected.value, asked);
    return done({ given, asked, key: expected.value });
  },
};
