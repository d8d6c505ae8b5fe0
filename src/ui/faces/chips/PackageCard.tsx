'use client';

import { DropdownMenu } from 'radix-ui';
import { sheetOf } from '@/core/circuit/lesson';
import type { Signal } from '@/core/packages/cell-builder';
import { dataSheet, type PackagePlan, type PlannedPackage, type PlannedUnit } from '@/core/packages/plan';
import { spokenName } from '@/core/parts/catalogue';
import { chipsSetupOf, setChipsSetup } from '@/session/changes/chips';
import { told } from '@/session/told';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import type { LitPins } from '@/ui/session/lit-pins';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { pinsOf, signalName, signalsAtPins } from './pins';

/** Height of a pin's row, width of the body, of a pin and of the room for a net's name beside it, in pixels. */
const ROW = 24;
const BODY = 104;
const PIN = 26;
const NAME = 74;
const WIDTH = 2 * (NAME + PIN) + BODY;

interface Props {
  readonly one: PlannedPackage;
  readonly plan: PackagePlan;
  readonly names: ReadonlyMap<Signal, string>;
  readonly lit: LitPins;
}

/** A package from above: pins with their numbers, beside each the signal that it carries. */
export function PackageCard({ one, plan, names, lit }: Props) {
  const type = dataSheet(one);
  const each = type.pins.length / 2;
  const unitOf = new Map(
    one.units.flatMap((unit) => pinsOf(one, unit).map((pin) => [pin.number, unit] as const)),
  );
  const signals = signalsAtPins(one);
  const height = each * ROW + 12;
  const place = (number: number) => (number <= each ? number - 1 : type.pins.length - number);
  return (
    <figure className="m-0" aria-label={`${one.ref}, ${one.name}`}>
      <figcaption className="mb-1 flex items-baseline gap-2">
        <strong>{one.ref}</strong>
        <span className="font-mono">{one.name}</span>
        <span className="text-sm text-quiet">{spares(one)}</span>
      </figcaption>
      <div className="relative" style={{ width: WIDTH, height }}>
        <div
          className="absolute rounded-md border-2 border-ink bg-raised"
          style={{ left: NAME + PIN, top: 0, width: BODY, height }}
        >
          <span
            className="absolute left-1/2 h-3 w-6 -translate-x-1/2 rounded-b-full border-2 border-t-0 border-ink bg-paper"
            style={{ top: -2 }}
          />
        </div>
        {type.pins.map((pin) => {
          const unit = unitOf.get(pin.number);
          const isLeft = pin.number <= each;
          const name = signalName(signals.get(pin.number), names);
          const isLit = lit.pins.has(`${one.ref}.${pin.number}`) || (unit?.parts.some(lit.isPart) ?? false);
          return (
            <div
              key={pin.number}
              className={`absolute flex items-center ${isLeft ? '' : 'flex-row-reverse'}`}
              style={{ top: 6 + place(pin.number) * ROW, left: isLeft ? 0 : NAME + PIN + BODY, height: ROW }}
            >
              <span
                className={`truncate px-1 text-sm ${isLeft ? 'text-right' : ''} ${isLit ? 'font-semibold text-accent' : unit?.parts.length === 0 ? 'text-quiet' : ''}`}
                style={{ width: NAME }}
                title={name}
              >
                {name}
              </span>
              <span
                className={`flex h-5 items-center justify-center border-y-2 font-mono text-[0.9375rem] font-semibold ${isLit ? 'border-accent bg-accent text-paper' : 'border-ink bg-hairline'}`}
                style={{ width: PIN }}
              >
                {pin.number}
              </span>
            </div>
          );
        })}
        <div className="absolute" style={{ left: NAME + PIN, top: 6, width: BODY, height: each * ROW }}>
          {type.pins.map((pin) => (
            <span
              key={pin.number}
              className={`absolute px-1.5 text-xs text-quiet ${pin.number <= each ? 'left-0' : 'right-0'}`}
              style={{ top: place(pin.number) * ROW, lineHeight: `${ROW}px` }}
              aria-hidden="true"
            >
              {pin.use === 'none' ? '–' : pin.name.replace(/'$/, '′')}
            </span>
          ))}
          {one.units.map((unit, i) => (
            <UnitButton
              key={unit.letter}
              one={one}
              unit={unit}
              at={i}
              plan={plan}
              isLit={unit.parts.some(lit.isPart)}
            />
          ))}
        </div>
      </div>
    </figure>
  );
}

function spares({ units }: PlannedPackage): string {
  const spare = units.filter(({ parts }) => parts.length === 0).length;
  if (units.length === 1) return '';
  return spare === 0 ? 'all used' : `${spare} of ${units.length} spare`;
}

/** The button of a unit, in the middle of its pins: selects its gate and offers other places for it. */
function UnitButton({
  one,
  unit,
  at,
  plan,
  isLit,
}: {
  one: PlannedPackage;
  unit: PlannedUnit;
  at: number;
  plan: PackagePlan;
  isLit: boolean;
}) {
  const session = useSession();
  const light = useCrossHighlight((p) => p.light);
  const parts = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.parts);
  const readOnly = useSessionState((s) => s.readOnly);
  const isSpare = unit.parts.length === 0;
  const own = unit.parts.flatMap((part) => parts.get(part) ?? []);
  const words = isSpare
    ? `Unit ${unit.letter}, spare`
    : `Unit ${unit.letter}: ${own.map(spokenName).join(', ') || unit.parts.join(', ')}`;
  const rows = pinsOf(one, unit).map(({ number }) => {
    const each = dataSheet(one).pins.length / 2;
    return number <= each ? number - 1 : 2 * each - number;
  });
  const middle = (Math.min(...rows) + Math.max(...rows)) / 2;
  const overlap = one.units.slice(0, at).filter((other) => {
    const each = dataSheet(one).pins.length / 2;
    const theirs = pinsOf(one, other).map(({ number }) => (number <= each ? number - 1 : 2 * each - number));
    return Math.abs((Math.min(...theirs) + Math.max(...theirs)) / 2 - middle) < 0.9;
  }).length;
  const select = () => session.select({ parts: new Set(own.map(({ id }) => id)), wires: new Set() });
  const face = `absolute flex h-6 w-6 items-center justify-center rounded-full text-sm ${
    isLit ? 'bg-accent font-semibold text-paper' : isSpare ? 'text-quiet' : 'bg-accent-soft text-accent'
  }`;
  const style = {
    top: middle * ROW,
    left: BODY / 2 - 12 + (overlap ? 14 * overlap : one.units.length > 2 && sharesRow(one, at) ? -14 : 0),
  };
  if (isSpare || readOnly)
    return (
      <span className={face} style={style} title={words}>
        {unit.letter}
      </span>
    );
  return (
    <DropdownMenu.Root modal={false} onOpenChange={(open) => open && select()}>
      <DropdownMenu.Trigger
        className={`${face} cursor-pointer`}
        style={style}
        aria-label={words}
        onPointerEnter={() => light(new Set(unit.parts))}
        onPointerLeave={() => light(null)}
        onFocus={() => light(new Set(unit.parts))}
        onBlur={() => light(null)}
      >
        {unit.letter}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu max-h-80 overflow-auto" sideOffset={4}>
          <DropdownMenu.Label className="px-2.5 py-1 text-xs text-quiet">{words}</DropdownMenu.Label>
          <UnitMenu one={one} unit={unit} plan={plan} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Whether another unit has its pins on the other side of the package at the same height. */
function sharesRow(one: PlannedPackage, at: number): boolean {
  const each = dataSheet(one).pins.length / 2;
  const middleOf = (unit: PlannedUnit) => {
    const rows = pinsOf(one, unit).map(({ number }) => (number <= each ? number - 1 : 2 * each - number));
    return (Math.min(...rows) + Math.max(...rows)) / 2;
  };
  return one.units.some((other, i) => i !== at && Math.abs(middleOf(other) - middleOf(one.units[at]!)) < 0.9);
}

/** Other places for the gate of a unit, and its inputs exchanged. */
function UnitMenu({ one, unit, plan }: { one: PlannedPackage; unit: PlannedUnit; plan: PackagePlan }) {
  const session = useSession();
  const [part] = unit.parts as [string];
  const bit = unit.bit ?? 0;
  const [group] = dataSheet(one).exchangeable;
  const isSame = (entry: { part: string; bit: number }) => entry.part === part && entry.bit === bit;
  const move = (ref: string, letter: string) => {
    const { pinned } = chipsSetupOf(session);
    const others = pinned.filter((entry) => !isSame(entry));
    told(
      setChipsSetup(session, { pinned: [...others, { part, bit, ref, unit: letter }] }, 'the unit of a gate'),
    );
  };
  const exchange = (pins: string) => {
    const { exchanged } = chipsSetupOf(session);
    const is = exchanged.some((entry) => isSame(entry) && entry.pins === pins);
    const others = exchanged.filter((entry) => !(isSame(entry) && entry.pins === pins));
    told(
      setChipsSetup(
        session,
        { exchanged: is ? others : [...others, { part, bit, pins }] },
        'inputs exchanged',
      ),
    );
  };
  const places = plan.packages
    .filter(({ name }) => name === one.name)
    .flatMap(({ ref, units }) =>
      units.map(({ letter, parts }) => ({ ref, letter, isSpare: parts.length === 0 })),
    )
    .filter(({ ref, letter }) => ref !== one.ref || letter !== unit.letter);
  return (
    <>
      {places.map(({ ref, letter, isSpare }) => (
        <DropdownMenu.Item key={ref + letter} className="menu-item" onSelect={() => move(ref, letter)}>
          {isSpare ? 'Move to' : 'Exchange with'} {ref} unit {letter}
        </DropdownMenu.Item>
      ))}
      {group && group.length > 1 && (
        <DropdownMenu.Item className="menu-item" onSelect={() => exchange(`${group[0]}${group[1]}`)}>
          Exchange inputs {group[0]} and {group[1]}
        </DropdownMenu.Item>
      )}
    </>
  );
}
