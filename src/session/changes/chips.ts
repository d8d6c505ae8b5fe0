import { type ChipsSetup, NO_CHIPS_SETUP } from '@/core/circuit/chips-setup';
import { sheetOf } from '@/core/circuit/lesson';
import type { End, Params, PinEnd } from '@/core/circuit/sheet';
import { connect, newPart, remove, setParams } from '@/core/drawing/editing/gestures';
import { pinOf } from '@/core/drawing/geometry/placement';
import type { Offer, SubstituteGate, Substitution } from '@/core/packages/offer';
import type { Feed } from '@/core/packages/realisations';
import { findKind } from '@/core/parts/catalogue';
import { inputName } from '@/core/parts/gates';
import { defaultParams } from '@/core/parts/params';
import { type Result, refused } from '@/core/values/result';
import type { Session } from '../session';
import type { Transaction } from '../transaction';

/** How the running sheet is planned in packages. */
export const chipsSetupOf = (session: Session): ChipsSetup =>
  sheetOf(session.state.lesson, session.state.rootId)?.chips ?? NO_CHIPS_SETUP;

/** Changes it, in one step of undo. @param what the change, as it follows “Undo:”. */
export function setChipsSetup(
  session: Session,
  change: Partial<ChipsSetup>,
  what: string,
): Result<undefined> {
  const chips = { ...chipsSetupOf(session), ...change };
  return session.edit(what, { type: 'changeSheet', id: session.state.rootId, change: { chips } });
}

/** Has the gates of an offer in the drawing, as one step of undo. */
export function takeOffer(session: Session, { substitutions, problem }: Offer): Result<undefined> {
  if (problem) return refused('not-in-drawing', problem);
  const sheetId = session.state.rootId;
  const made = session.transaction('the packages saved', (transaction) => {
    for (const one of substitutions) substitute(transaction, sheetId, one);
  });
  if (!made.ok) return made;
  session.sayUndoable('The drawing has the gates that save a package.');
  return { ok: true, value: undefined };
}

/** Puts gates in the place of one: the last is the drawn part itself, so that its wires stay. */
function substitute(made: Transaction, sheetId: string, { part, gates }: Substitution): void {
  const sheet = () => sheetOf(made.lesson, sheetId)!;
  const was = sheet().parts.get(part);
  if (!was) return;
  /** What drives each input of the drawn gate, by the wire that comes there. */
  const sources = new Map<number, End>();
  for (const wire of sheet().wires.values())
    for (const [here, there] of [
      [wire.from, wire.to],
      [wire.to, wire.from],
    ] as const)
      if ('part' in here && here.part === part && /^[A-P]$/.test(here.port))
        sources.set(here.port.charCodeAt(0) - 65, there);
  const last = gates.at(-1)!;
  // Wires at the inputs go where the new gates need them.
  for (const wire of [...sheet().wires.values()]) {
    const end = [wire.from, wire.to].find(
      (e): e is PinEnd => 'part' in e && e.part === part && e.port !== 'Y',
    );
    if (end && gates.length > 1 && sheet().wires.has(wire.id))
      made.make(remove(sheet(), new Set(), new Set([wire.id])));
  }
  const kind = findKind(last.kind)!;
  const bubbles: Params = Array.isArray(was.params.inverted) ? { inverted: was.params.inverted } : {};
  const params = {
    ...defaultParams(kind),
    ...('inverted' in defaultParams(kind) ? bubbles : {}),
    ...paramsOf(last),
  };
  made.make(setParams(made.lesson, sheetId, part, params, new Map(), last.kind));
  const outputs: End[] = [];
  for (const gate of gates.slice(0, -1)) {
    const kind = findKind(gate.kind)!;
    const at = { x: was.at.x - 10, y: was.at.y + 6 * outputs.length };
    const added = newPart(sheet(), kind, at, { ...defaultParams(kind), ...paramsOf(gate) }, '');
    made.make({ type: 'addPart', sheet: sheetId, part: added });
    outputs.push({ part: added.id, port: 'Y' });
    joinInputs(made, sheetId, added.id, gate, sources, outputs);
  }
  joinInputs(made, sheetId, part, last, sources, outputs, gates.length === 1);
}

const paramsOf = ({ kind, feeds }: SubstituteGate): Params =>
  kind === 'not' || kind === 'buffer' ? {} : { inputs: feeds.length };

/** Wires the inputs of a gate. @param isWired whether the inputs that the drawn gate had are wired already. */
function joinInputs(
  made: Transaction,
  sheetId: string,
  part: string,
  { feeds }: SubstituteGate,
  sources: ReadonlyMap<number, End>,
  outputs: readonly End[],
  isWired = false,
): void {
  const sheet = () => sheetOf(made.lesson, sheetId)!;
  for (const [i, feed] of feeds.entries()) {
    const to = { part, port: inputName(i) };
    if (isWired && typeof feed !== 'string' && 'input' in feed && feed.input === i) continue;
    const from = sourceOf(made, sheetId, to, feed, sources, outputs);
    if (from && pinOf(sheet(), part, to.port)) made.make(connect(sheet(), from, to));
  }
}

/** Where a signal comes from; a level is a constant beside the pin. */
function sourceOf(
  made: Transaction,
  sheetId: string,
  to: PinEnd,
  feed: Feed,
  sources: ReadonlyMap<number, End>,
  outputs: readonly End[],
): End | undefined {
  if (typeof feed !== 'string') return 'input' in feed ? sources.get(feed.input) : outputs[feed.unit];
  const sheet = sheetOf(made.lesson, sheetId)!;
  const pin = pinOf(sheet, to.part, to.port);
  if (!pin) return undefined;
  const kind = findKind('constant')!;
  const constant = newPart(
    sheet,
    kind,
    { x: pin.at.x - 6, y: pin.at.y },
    { value: feed === '+' ? 1 : 0 },
    '',
  );
  made.make({ type: 'addPart', sheet: sheetId, part: constant });
  return { part: constant.id, port: 'Y' };
}
