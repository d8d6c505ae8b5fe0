import { apply, type Edit } from '../../circuit/edit';
import { overlap, type Point } from '../../circuit/geometry';
import { emptyLesson, type Lesson, sheetOf } from '../../circuit/lesson';
import { type End, isPinEnd, type Params, type Part, type PinEnd, type Sheet } from '../../circuit/sheet';
import { type Diagnostic, isUnfinished } from '../../netlist/diagnostic';
import { findKind, kindOf } from '../../parts/catalogue';
import { readParams } from '../../parts/params';
import { footprintOf, pinOf, pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';
import { group } from '../routing/reroute';
import { connect, newPart, remove } from './gestures';

/** A remedy for a problem: the text of its button, and its edit. */
export interface Remedy {
  readonly name: string;
  readonly edit: Edit;
}

/** Single bits are offered one by one up to this width. */
const MOST_BITS_OFFERED = 8;

/** The remedies for a problem on a sheet; none where only the person can know. */
export function remediesFor(lesson: Lesson, sheetId: string, problem: Diagnostic): Remedy[] {
  const sheet = sheetOf(lesson, sheetId);
  const [pin] = problem.pins;
  if (!sheet || !pin) return [];
  switch (problem.code) {
    case 'loose-input':
    case 'undriven':
      return driverRemedies(sheet, pin);
    case 'width-mismatch':
      return mismatchRemedies(lesson, sheet, problem.pins);
    case 'duplicate-name':
      return renameRemedy(sheet, problem.pins);
    case 'outputs-tied':
      return untieRemedies(sheet, problem.pins);
    default:
      return [];
  }
}

/** A remedy that fits many problems at once; its edit is found when it is wanted. */
export interface JointRemedy {
  readonly name: string;
  readonly find: () => Edit;
}

/** The remedies that give every open input of a sheet a driver; none where there are fewer than two. */
export function remediesForAll(
  lesson: Lesson,
  sheetId: string,
  problems: readonly Diagnostic[],
): JointRemedy[] {
  const open = problems.filter(isUnfinished);
  if (open.length < 2) return [];
  return [`Put switches at all ${open.length}`, `Make all ${open.length} 0`, `Make all ${open.length} 1`].map(
    (name, nth) => ({
      name,
      find: () => {
        let now = lesson;
        const edits: Edit[] = [];
        for (const problem of open) {
          const remedy = remediesFor(now, sheetId, problem)[nth];
          const applied = remedy && apply(now, remedy.edit);
          if (!applied?.ok) continue;
          now = applied.value;
          edits.push(remedy!.edit);
        }
        return group(edits);
      },
    }),
  );
}

function driverRemedies(sheet: Sheet, pin: PinEnd): Remedy[] {
  const there = pinOf(sheet, pin.part, pin.port);
  if (!there) return [];
  const { width } = there.port;
  const before = (kind: string, params: Params, name: string): Remedy[] => {
    const edit = placeAtPin(sheet, pin, kind, { ...params, width }, 'Y', 5);
    return edit ? [{ name, edit }] : [];
  };
  return [
    ...before('switch', {}, width === 1 ? 'Put a switch there' : 'Put switches there'),
    ...before('constant', { value: 0 }, 'Make it 0'),
    ...before(
      'constant',
      { value: width === 1 ? 1 : 2 ** Math.min(width, 32) - 1 },
      width === 1 ? 'Make it 1' : 'Make it all 1',
    ),
  ];
}

/** A part whose port is put some steps out of a pin and wired to it; a little aside where another stands. */
function placeAtPin(
  sheet: Sheet,
  pin: PinEnd,
  kind: string,
  params: Params,
  port: string,
  away: number,
): Edit | null {
  const there = pinOf(sheet, pin.part, pin.port)!;
  const entry = findKind(kind)!;
  const trial = newPart(sheet, entry, { x: 0, y: 0 }, params, '');
  const own = pinsOf(trial).find((p) => p.port.name === port);
  if (!own) return null;
  const flat = there.out.x !== 0;
  const preferred = {
    x: there.at.x + there.out.x * away - own.at.x,
    y: there.at.y + there.out.y * away - own.at.y,
  };
  const part = { ...trial, at: freeNear(sheet, trial, preferred, flat) };
  const added: Edit = { type: 'addPart', sheet: sheet.id, part };
  const withPart: Sheet = { ...sheet, parts: new Map(sheet.parts).set(part.id, part) };
  const wire = connect(withPart, { part: part.id, port }, pin);
  return wire && group([added, wire]);
}

/** The place nearest to the preferred one at which a part covers no other, aside from the way of its wire. */
function freeNear(sheet: Sheet, part: Part, preferred: Point, flat: boolean): Point {
  const taken = [...sheet.parts.values()].map(footprintOf);
  for (let off = 0; off < 60; off++) {
    const aside = (off % 2 === 0 ? off : -off - 1) / 2;
    const at = flat ? { x: preferred.x, y: preferred.y + aside } : { x: preferred.x + aside, y: preferred.y };
    const box = footprintOf({ ...part, at });
    if (!taken.some((t) => overlap(t, box))) return at;
  }
  return preferred;
}

function renameRemedy(sheet: Sheet, pins: readonly PinEnd[]): Remedy[] {
  const taken = new Set([...sheet.parts.values()].map((p) => p.label));
  const edits = pins.slice(1).flatMap(({ part: id }): Edit[] => {
    const part = sheet.parts.get(id);
    if (!part) return [];
    const stem = part.label || kindOf(part).labelled;
    let n = 2;
    while (taken.has(`${stem} ${n}`)) n++;
    const label = `${stem} ${n}`;
    taken.add(label);
    return [{ type: 'changePart', sheet: sheet.id, id, change: { label } }];
  });
  return edits.length
    ? [{ name: edits.length === 1 ? 'Rename the second' : 'Number them', edit: group(edits) }]
    : [];
}

function untieRemedies(sheet: Sheet, pins: readonly PinEnd[]): Remedy[] {
  return pins.flatMap((pin) => {
    const part = sheet.parts.get(pin.part);
    const wires = [...sheet.wires.values()].filter((w) =>
      [w.from, w.to].some(
        (e) => isPinEnd(e) && e.part === pin.part && (pin.port === '' || e.port === pin.port),
      ),
    );
    if (!part || wires.length === 0) return [];
    const name = part.label || `${kindOf(part).name} ${/\d+$/.exec(part.id)?.[0] ?? ''}`.trim();
    return [{ name: `Take ${name} off`, edit: remove(sheet, new Set(), new Set(wires.map((w) => w.id))) }];
  });
}

/** Remedies for the first wire between the pins that are not equally wide. */
function mismatchRemedies(lesson: Lesson, sheet: Sheet, pins: readonly PinEnd[]): Remedy[] {
  const nets = wireNets(sheet);
  const net = nets.ofEnd(pins[0]!);
  const on = [...sheet.parts.values()].flatMap((part) =>
    pinsOf(part).filter((p) => nets.ofEnd({ part: part.id, port: p.port.name }) === net),
  );
  const driver = on.find((p) => p.port.direction === 'out');
  const reader = driver && on.find((p) => p.port.direction !== 'out' && p.port.width !== driver.port.width);
  if (!driver || !reader) return [];
  const to = { part: reader.part, port: reader.port.name };
  const wire = [...sheet.wires.values()].find((w) =>
    [w.from, w.to].some((e) => isPinEnd(e) && e.part === to.part && e.port === to.port),
  );
  if (!wire) return [];
  const off = remove(sheet, new Set(), new Set([wire.id]));
  const applied = apply(lesson, off);
  if (!applied.ok) return [];
  const after = sheetOf(applied.value, sheet.id)!;
  const other = wire.from === to || (isPinEnd(wire.from) && wire.from.part === to.part) ? wire.to : wire.from;
  const there = isPinEnd(other) || after.wires.has(other.wire);
  const from: End = there ? other : { part: driver.part, port: driver.port.name };
  return widthRemedies(after, from, driver.port.width, to).map(({ name, edit }) => ({
    name,
    edit: group([off, edit]),
  }));
}

/** The width of an end of a wire in bits, by the pins of its net; 1 if it has none. */
export function widthAt(sheet: Sheet, end: End): number {
  if (isPinEnd(end)) return pinOf(sheet, end.part, end.port)?.port.width ?? 1;
  const nets = wireNets(sheet);
  const net = nets.ofWire(end.wire);
  for (const part of sheet.parts.values())
    for (const pin of pinsOf(part))
      if (nets.ofEnd({ part: part.id, port: pin.port.name }) === net) return pin.port.width;
  return 1;
}

/** Ways to join a signal of some bits to a pin of another width: each puts a part between them. */
export function widthRemedies(sheet: Sheet, from: End, width: number, to: PinEnd): Remedy[] {
  const pin = pinOf(sheet, to.part, to.port);
  if (!pin) return [];
  const wanted = pin.port.width;
  const between = (name: string, kind: string, params: Params): Remedy[] => {
    const edit = adapter(sheet, [from], to, kind, params);
    return edit ? [{ name, edit }] : [];
  };
  const slice = (high: number, low: number) => ({ width, high, low });
  if (width > wanted) {
    const bits =
      wanted === 1
        ? Array.from({ length: Math.min(width, MOST_BITS_OFFERED) }, (_, bit) =>
            between(`Take bit ${bit}`, 'slice', slice(bit, bit)),
          ).flat()
        : between(`Take bits ${wanted - 1} to 0`, 'slice', slice(wanted - 1, 0));
    const top =
      wanted === 1 && width <= MOST_BITS_OFFERED
        ? []
        : between(
            wanted === 1 ? `Take bit ${width - 1}` : `Take bits ${width - 1} to ${width - wanted}`,
            'slice',
            slice(width - 1, width - wanted),
          );
    return [...bits, ...top];
  }
  return [
    ...between('Extend by zeros', 'extend', { from: width, to: wanted, by: 'zero' }),
    ...(width > 1 ? between('Extend by the sign', 'extend', { from: width, to: wanted, by: 'sign' }) : []),
    ...(wanted % width === 0
      ? between(`Repeat it ${wanted / width} times`, 'join', { widths: Array(wanted / width).fill(width) })
      : []),
  ];
}

/** The edits of one after the other, each made on the sheet that the ones before leave. */
function together(sheet: Sheet, first: Edit, then: readonly ((now: Sheet) => Edit | null)[]): Edit | null {
  let lesson: Lesson = { ...emptyLesson('remedy', ''), sheets: [sheet] };
  const edits: Edit[] = [];
  for (const next of [() => first, ...then]) {
    const edit = next(lesson.sheets[0]!);
    const applied = edit && apply(lesson, edit);
    if (!edit || !applied?.ok) return null;
    lesson = applied.value;
    edits.push(edit);
  }
  return group(edits);
}

/** A part between ends and a pin, wired at both sides; one end for each of its inputs, or one for all. */
function adapter(sheet: Sheet, from: readonly End[], to: PinEnd, kind: string, params: Params): Edit | null {
  const parsed = readParams(findKind(kind)!, params);
  const out = parsed.ok ? placeAtPin(sheet, to, kind, parsed.value, 'Y', 3) : null;
  const added = out?.type === 'group' ? out.edits[0] : undefined;
  if (!out || added?.type !== 'addPart') return null;
  const inputs = pinsOf(added.part).filter((p) => p.port.direction === 'in');
  return together(
    sheet,
    out,
    inputs.map(
      ({ port }, i) =>
        (now) =>
          connect(now, from[i] ?? from[0]!, { part: added.part.id, port: port.name }),
    ),
  );
}

/** A bus spread over narrower pins, the first of them with the highest bits: a slice before each. */
export function spreadBus(sheet: Sheet, from: End, onto: readonly PinEnd[]): Edit | null {
  const width = widthAt(sheet, from);
  let high = width - 1;
  return together(
    sheet,
    group([]),
    onto.map((to) => (now: Sheet) => {
      const low = high - widthAt(sheet, to) + 1;
      const made = adapter(now, [from], to, 'slice', { width, high, low });
      high = low - 1;
      return made;
    }),
  );
}

/** Several wires laid together in front of a bus pin: a join, the first of them with the highest bits. */
export function gather(sheet: Sheet, from: readonly End[], to: PinEnd): Edit | null {
  return adapter(sheet, from, to, 'join', { widths: from.map((end) => widthAt(sheet, end)) });
}
