'use client';

import { Fragment } from 'react';
import type { Task } from '@/core/circuit/exercise';
import type { BuildAsked } from '@/core/exercise/kinds/build';
import type { Limits } from '@/core/exercise/kinds/build/limits';
import { DRAWINGS, type Drawing } from '@/core/exercise/rules';
import { families, PLACEABLE } from '@/core/parts/catalogue';
import { PS_PER_UNIT } from '@/core/values/time';
import { hint } from '@/ui/controls/hint';

const FAMILIES = families(PLACEABLE.filter((k) => !k.alwaysAllowed));
export const GATES: readonly string[] = PLACEABLE.filter((k) => k.isGate).map((k) => k.kind);

interface Props {
  readonly asked: BuildAsked;
  readonly onAsked: (asked: BuildAsked) => void;
  /** The kinds of part on the teacher's own sheet, where there is one. */
  readonly own?: ReadonlySet<string>;
  /** The tasks before it in its exercise. */
  readonly earlier?: readonly Task[];
}

const DRAWN: Readonly<Record<Drawing, string>> = {
  'by hand': 'drawn by hand, part by part',
  typed: 'drawn, or typed as statements',
  free: 'drawn, typed, or made of a filled-in table',
};

/** The parts of which a circuit may be made, how it may come about, and how large it may be. */
export function BuildAskedFields({ asked, onAsked, own, earlier = [] }: Props) {
  const allowed = new Set(asked.parts);
  const take = (next: ReadonlySet<string>) => onAsked({ ...asked, parts: [...next] });
  const blocks = earlier.filter(({ kind }) => kind === 'build');
  return (
    <>
      <fieldset>
        <legend className="mb-1 font-semibold">
          Parts that may be used{' '}
          <span className="font-normal text-quiet">besides switches and lamps; also inside blocks</span>
        </legend>
        <div className="mb-1.5 flex gap-2">
          {own && (
            <button type="button" className="button small" onClick={() => take(own)}>
              As on this sheet
            </button>
          )}
          <button type="button" className="button small" onClick={() => take(new Set(GATES))}>
            All gates
          </button>
          <button type="button" className="button small" onClick={() => take(new Set(['nand']))}>
            NAND only
          </button>
          <button type="button" className="button small" onClick={() => take(new Set(['nor']))}>
            NOR only
          </button>
        </div>
        <div className="grid grid-cols-[6rem_1fr] gap-y-1.5">
          {FAMILIES.map(({ family, kinds }) => (
            <Fragment key={family}>
              <span className="text-sm text-quiet">{family}</span>
              <div className="flex flex-wrap gap-x-4 gap-y-0.5">
                {kinds.map((kind) => (
                  <label key={kind.kind} className="flex items-center gap-1.5">
                    <input
                      type="checkbox"
                      checked={allowed.has(kind.kind)}
                      onChange={(event) => {
                        const next = new Set(allowed);
                        if (event.target.checked) next.add(kind.kind);
                        else next.delete(kind.kind);
                        take(next);
                      }}
                    />
                    {kind.name}
                  </label>
                ))}
              </div>
            </Fragment>
          ))}
        </div>
      </fieldset>
      {blocks.length > 0 && (
        <fieldset>
          <legend className="mb-1 font-semibold">
            Blocks that may be used{' '}
            <span className="font-normal text-quiet">what was built in an earlier task, as one part</span>
          </legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {blocks.map(({ id, title }) => (
              <label key={id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={asked.blocks.includes(id)}
                  onChange={(event) =>
                    onAsked({
                      ...asked,
                      blocks: event.target.checked
                        ? [...asked.blocks, id]
                        : asked.blocks.filter((block) => block !== id),
                    })
                  }
                />
                <bdi>{title}</bdi>
              </label>
            ))}
          </div>
        </fieldset>
      )}
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">The circuit is</span>
          <select
            className="field"
            value={asked.drawing}
            onChange={(event) => onAsked({ ...asked, drawing: event.target.value as Drawing })}
          >
            {DRAWINGS.map((one) => (
              <option key={one} value={one}>
                {DRAWN[one]}
              </option>
            ))}
          </select>
        </label>
        <LimitFields limits={asked.limits} onLimits={(limits) => onAsked({ ...asked, limits })} />
      </div>
    </>
  );
}

const PACKED = 'As on the Chips face: the fewest in the family of the sheet, with gates as they are drawn';

const LIMITS: readonly (readonly [keyof Limits, string])[] = [
  ['gates', 'Most gates'],
  ['gateInputs', 'Inputs a gate'],
  ['levels', 'Levels'],
  ['storage', 'Bits of storage'],
  ['packages', 'Packages'],
  ['delay', 'Longest delay, ns'],
];

function LimitFields({
  limits,
  onLimits,
}: {
  readonly limits: Limits;
  readonly onLimits: (limits: Limits) => void;
}) {
  const unit = (of: keyof Limits) => (of === 'delay' ? PS_PER_UNIT.ns : 1);
  const change = (of: keyof Limits, typed: string) => {
    const value = Math.round(Number(typed) * unit(of));
    const { [of]: _, ...others } = limits;
    onLimits(typed.trim() === '' || !(value >= 0) ? others : { ...others, [of]: value });
  };
  return LIMITS.map(([of, name]) => (
    <label key={of} className="flex flex-col gap-1">
      <span className="font-semibold">{name}</span>
      <input
        className="field w-24"
        type="number"
        min={0}
        placeholder="any"
        {...(of === 'packages' ? hint(PACKED) : {})}
        value={limits[of] === undefined ? '' : limits[of] / unit(of)}
        onChange={(event) => change(of, event.target.value)}
      />
    </label>
  ));
}
