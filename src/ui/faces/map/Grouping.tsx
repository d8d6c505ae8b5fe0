import { useState } from 'react';
import { sumOf } from '@/core/logic/expression/forms';
import { cubeOfRows, judged, wrongWithGroup } from '@/core/logic/map/map';
import { type BooleanFunction, type Cube, literalCount, sameCube } from '@/core/logic/minimise/cube';
import { sentence } from '@/core/values/result';
import { Typeset } from '@/ui/formula-text/Typeset';

import { Swatch } from '@/ui/map-board/Swatch';

interface GroupingProps {
  readonly fn: BooleanFunction;
  readonly names: readonly string[];
  readonly own: readonly Cube[];
  readonly setOwn: (own: readonly Cube[]) => void;
  readonly picked: ReadonlySet<number>;
  readonly setPicked: (rows: ReadonlySet<number>) => void;
}

/** Groups drawn by hand: cells are picked, looped, and the whole is judged when one asks. */
export function Grouping({ fn, names, own, setOwn, picked, setPicked }: GroupingProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const [isAsked, setAsked] = useState(false);
  const verdict = isAsked ? judged(own, fn) : null;
  const add = () => {
    const wrong = wrongWithGroup(picked, fn);
    setProblem(wrong && sentence(wrong));
    if (wrong) return;
    const cube = cubeOfRows(picked, fn.inputs)!;
    if (!own.some((o) => sameCube(o, cube))) setOwn([...own, cube]);
    setPicked(new Set());
    setAsked(false);
  };
  return (
    <div className="mt-4 flex flex-col gap-2 text-sm">
      <p className="text-quiet">
        Click or drag over cells that belong together, at opposite edges too, then loop them.
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button small main" disabled={picked.size === 0} onClick={add}>
          Loop {picked.size === 1 ? 'this cell' : `these ${picked.size} cells`}
        </button>
        <button
          type="button"
          className="button small"
          disabled={own.length === 0}
          onClick={() => setAsked(true)}
        >
          Check
        </button>
        {(own.length > 0 || picked.size > 0) && (
          <button
            type="button"
            className="button small"
            onClick={() => {
              setOwn([]);
              setPicked(new Set());
              setProblem(null);
              setAsked(false);
            }}
          >
            Start over
          </button>
        )}
      </div>
      {problem && (
        <p role="alert" className="text-bad">
          {problem}
        </p>
      )}
      <ul className="flex flex-col gap-1">
        {own.map((cube, i) => (
          <li key={`${cube.mask} ${cube.value}`} className="flex items-center gap-2">
            <Swatch index={i} />
            <span className="text-[1.05rem]">
              <Typeset expression={sumOf([cube], names)} notation="bar" />
            </span>
            <span className="text-quiet">
              {2 ** (fn.inputs - literalCount(cube))} {literalCount(cube) === fn.inputs ? 'cell' : 'cells'}
            </span>
            {verdict?.groups[i] && <span className="text-bad">{verdict.groups[i]}</span>}
            <button
              type="button"
              className="icon-button ml-auto size-6"
              aria-label={`Remove group ${i + 1}`}
              onClick={() => {
                setOwn(own.filter((o) => o !== cube));
                setAsked(false);
              }}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      {verdict && (
        <p role="status" className={verdict.isRight ? 'font-semibold text-good' : 'text-bad'}>
          {verdict.isRight
            ? 'Right: every 1 is in a group, each group is as large as it can be, and none is redundant.'
            : verdict.bare.length > 0
              ? `Not in any group yet: ${verdict.bare.length === 1 ? 'row' : 'rows'} ${verdict.bare.join(', ')}.`
              : 'All ones are in a group; see what is said beside the groups.'}
        </p>
      )}
    </div>
  );
}
