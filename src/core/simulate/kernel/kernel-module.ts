import { Code, moduleOf, type WasmFunction } from '../../values/wasm/module';
import {
  add,
  and,
  choose,
  ctz,
  type Expression,
  eq,
  geU,
  growMemory,
  gtU,
  Local,
  Locals,
  load8,
  load32,
  ltU,
  memoryPages,
  ne,
  not,
  type Operand,
  or,
  repeat,
  type Step,
  set,
  shl,
  shrU,
  steps,
  store8,
  store32,
  sub,
  trap,
  when,
  whilst,
  xor,
} from '../../values/wasm/scalar';
import {
  AT_REST,
  BEGIN_DUE,
  BEGIN_PLANNED,
  CHUNK,
  DAY,
  HEADER,
  IN_INSTANT,
  PAUSED,
  PLACE,
  SAYS_FORWARD,
  SAYS_STORAGE,
  SAYS_WIDE,
  TARGET,
  VALUE,
  WAITS,
} from './layout';

/*
 * The inner loop of a timed run as WebAssembly over the memory of layout.ts: instant by instant what is due takes effect, and the
 * gates that read it are evaluated and put on the lists of later days (two phases an instant: Ulrich, 1969, "Exclusive simulation
 * of activity in digital networks"; a list a day: Brown, 1988, "Calendar queues"). An entry whose gate was evaluated to something
 * else meanwhile stays in its list, and is passed over there. What storage makes of an instant is left to the caller.
 */

const BITS = 3;
const TARGET_BITS = BITS << TARGET;
const VALUE_BITS = BITS << VALUE;
const FLAG = 1 << WAITS;
const PAGE = 16;

type Field = keyof typeof HEADER;

const valueIn = (of: Operand): Expression => and(shrU(of, VALUE), BITS);
const targetIn = (of: Operand): Expression => and(shrU(of, TARGET), BITS);

/**
 * Writes a function. Each has a few things in locals only, so that a machine has registers for them.
 * @param reads fields of the header that are held in locals.
 * @param writes the same, put back at the end.
 */
function written<R extends Field, W extends Field>(
  parameters: number,
  reads: readonly R[],
  writes: readonly W[],
  body: (held: Record<R | W, Local>, local: () => Local) => Step,
): WasmFunction {
  const locals = new Locals(parameters);
  const held = Object.fromEntries([...reads, ...writes].map((name) => [name, locals.next()])) as Record<
    R | W,
    Local
  >;
  const code = new Code();
  steps(
    ...[...reads, ...writes].map((name) => set(held[name], field(name))),
    body(held, () => locals.next()),
    ...writes.map((name) => put(name, held[name])),
  )(code);
  return { parameters, i32Locals: locals.added, v128Locals: 0, code };
}

const header = new Local(0);
const field = (name: Field) => load32(header, HEADER[name]);
const put = (name: Field, value: Operand) => store32(header, value, HEADER[name]);

type Effects = Record<'values' | 'logStep' | 'logEnd' | 'events' | 'waitingEnd', Local>;

/** The cell `at`, whose word is `word`, takes on `value`; its readers are added to the waiting ones. */
function takeOn(held: Effects, at: Local, word: Local, value: Local, local: () => Local): Step {
  const change = local();
  const reading = local();
  const readingsEnd = local();
  const reader = local();
  const readerWord = local();
  const shift = local();
  return steps(
    set(change, sub(value, valueIn(word))),
    store32(held.logEnd, or(at, or(shl(valueIn(word), 2), value))),
    set(held.logEnd, add(held.logEnd, held.logStep)),
    store32(at, or(and(word, ~(TARGET_BITS | VALUE_BITS)), or(shl(value, TARGET), shl(value, VALUE)))),
    store8(add(held.values, shrU(at, 4)), value),
    set(held.events, add(held.events, 1)),
    set(reading, load32(at, 8)),
    set(readingsEnd, load32(at, 12)),
    whilst(
      ne(reading, readingsEnd),
      steps(
        set(shift, load32(reading)),
        set(reader, and(shift, -16)),
        set(readerWord, add(load32(reader), shl(change, and(shift, 15)))),
        store32(held.waitingEnd, reader),
        set(held.waitingEnd, add(held.waitingEnd, shl(and(xor(shrU(readerWord, WAITS), 1), 1), 2))),
        store32(reader, or(readerWord, FLAG)),
        set(reading, add(reading, 4)),
      ),
    ),
  );
}

/** Everything planned takes effect. */
const takePlanned = (): WasmFunction =>
  written(
    1,
    ['values', 'logStep', 'planned', 'plannedEnd'],
    ['logEnd', 'events', 'waitingEnd'],
    (held, local) => {
      const entry = local();
      const at = local();
      const word = local();
      const value = local();
      return steps(
        set(entry, held.planned),
        whilst(
          ne(entry, held.plannedEnd),
          steps(
            set(value, and(load32(entry), BITS)),
            set(at, and(load32(entry), -16)),
            set(word, load32(at)),
            when(ne(value, valueIn(word)), takeOn(held, at, word, value, local)),
            set(entry, add(entry, 4)),
          ),
        ),
        put('plannedEnd', held.planned),
      );
    },
  );

/** What is due today takes effect; its list is given back. */
const takeDay = (): WasmFunction =>
  written(1, ['values', 'logStep', 'today'], ['logEnd', 'events', 'waitingEnd'], (held, local) => {
    const at = local();
    const word = local();
    const value = local();
    const entry = local();
    const end = local();
    const chunk = local();
    const head = local();
    const tail = local();
    const next = local();
    const used = local();
    return steps(
      set(used, add(field('used'), shl(shrU(held.today, 5), 2))),
      store32(used, xor(load32(used), shl(1, and(held.today, 31)))),
      put('usedDays', sub(field('usedDays'), 1)),
      set(head, add(field('heads'), shl(held.today, 3))),
      set(tail, load32(head, 4)),
      set(chunk, load32(head)),
      store32(head, 0, 4),
      repeat(
        steps(
          set(next, load32(chunk)),
          set(entry, add(chunk, 4)),
          set(end, choose(next, add(chunk, CHUNK), tail)),
          whilst(
            ne(entry, end),
            steps(
              set(at, load32(entry)),
              set(word, load32(at)),
              set(value, targetIn(word)),
              when(
                and(eq(shrU(word, DAY), held.today), ne(value, valueIn(word))),
                takeOn(held, at, word, value, local),
              ),
              set(entry, add(entry, 4)),
            ),
          ),
          store32(chunk, field('free')),
          put('free', chunk),
          set(chunk, next),
        ),
        chunk,
      ),
    );
  });

type Lists = Record<'today' | 'mask' | 'heads' | 'plannedEnd', Local>;

/** Puts `at` on the list of the day `slot`. */
function append(held: Lists, at: Local, slot: Local, local: () => Local): Step {
  const head = local();
  const tail = local();
  const chunk = local();
  const used = local();
  return steps(
    set(head, add(held.heads, shl(slot, 3))),
    set(tail, load32(head, 4)),
    when(
      not(and(tail, CHUNK - 1)),
      steps(
        set(chunk, field('free')),
        when(
          chunk,
          put('free', load32(chunk)),
          steps(set(chunk, field('bump')), put('bump', add(chunk, CHUNK))),
        ),
        when(
          tail,
          store32(sub(tail, CHUNK), chunk),
          steps(
            store32(head, chunk),
            set(used, add(field('used'), shl(shrU(slot, 5), 2))),
            store32(used, or(load32(used), shl(1, and(slot, 31)))),
            put('usedDays', add(field('usedDays'), 1)),
          ),
        ),
        store32(chunk, 0),
        set(tail, add(chunk, 4)),
      ),
    ),
    store32(tail, at),
    store32(head, add(tail, 4), 4),
  );
}

/** A gate of many inputs, whose cell is `at`: its output into `value`. */
function evaluateWide(at: Local, value: Local, local: () => Local): Step {
  const place = local();
  const kind = local();
  const end = local();
  const among = local();
  const odd = local();
  return steps(
    set(place, load32(add(field('reads'), shrU(at, 2)))),
    set(kind, load32(place)),
    set(among, 0),
    set(odd, 0),
    set(end, add(place, shl(and(kind, 0xffffff), 2))),
    repeat(
      steps(
        set(place, add(place, 4)),
        set(value, load8(load32(place))),
        set(among, or(among, shl(2, value))),
        set(odd, xor(odd, and(value, 1))),
      ),
      ne(place, end),
    ),
    set(value, load8(add(add(field('wide'), shl(shrU(kind, 24), 5)), or(among, odd)))),
  );
}

/** The output of `at`, which is not its target, is planned or put on the list of a day. */
function schedule(held: Lists, at: Local, word: Local, value: Local, local: () => Local): Step {
  const delays = local();
  const days = local();
  const slot = local();
  return when(
    eq(value, valueIn(word)),
    set(word, or(and(word, ~TARGET_BITS), shl(value, TARGET))),
    steps(
      set(delays, load32(at, 4)),
      // Without a branch for 0 and 1, of which one is as frequent as the other.
      set(days, and(shrU(delays, shl(and(xor(value, 1), 1), 4)), 0xffff)),
      when(
        gtU(value, 1),
        set(days, choose(ltU(and(delays, 0xffff), shrU(delays, 16)), and(delays, 0xffff), shrU(delays, 16))),
      ),
      when(
        days,
        steps(
          set(slot, and(add(held.today, days), held.mask)),
          set(word, or(and(word, FLAG - 1 - TARGET_BITS), or(shl(value, TARGET), shl(slot, DAY)))),
          append(held, at, slot, local),
        ),
        steps(
          set(word, or(and(word, ~TARGET_BITS), shl(valueIn(word), TARGET))),
          store32(held.plannedEnd, or(at, value)),
          set(held.plannedEnd, add(held.plannedEnd, 4)),
        ),
      ),
    ),
  );
}

/** Room for the lists to which all that wait may be put. */
function makeRoom(waiting: Local, end: Local, mask: Local, local: () => Local): Step {
  const count = local();
  const bytes = local();
  return steps(
    set(count, shrU(sub(end, waiting), 2)),
    set(bytes, shl(add(add(choose(ltU(count, mask), count, add(mask, 1)), shrU(count, 5)), 2), 8)),
    when(
      gtU(add(field('bump'), bytes), shl(memoryPages, PAGE)),
      when(eq(growMemory(add(shrU(bytes, PAGE), 2)), -1), trap),
    ),
  );
}

/** All that wait are evaluated. */
const evaluateWaiting = (): WasmFunction =>
  written(1, ['today', 'mask', 'heads', 'table', 'waiting', 'waitingEnd'], ['plannedEnd'], (held, local) => {
    const entry = local();
    const at = local();
    const word = local();
    const value = local();
    return steps(
      makeRoom(held.waiting, held.waitingEnd, held.mask, local),
      set(entry, held.waiting),
      whilst(
        ne(entry, held.waitingEnd),
        steps(
          set(at, load32(entry)),
          set(word, xor(load32(at), FLAG)),
          set(value, load8(add(held.table, and(word, PLACE)))),
          when(
            ne(value, targetIn(word)),
            steps(
              when(
                geU(value, SAYS_FORWARD),
                steps(
                  when(
                    eq(value, SAYS_FORWARD),
                    steps(
                      store32(at, word),
                      set(at, load32(at, 8)),
                      set(word, load32(at)),
                      set(value, SAYS_WIDE),
                    ),
                  ),
                  when(
                    eq(value, SAYS_STORAGE),
                    steps(
                      store32(field('storedEnd'), at),
                      put('storedEnd', add(field('storedEnd'), 4)),
                      set(word, or(word, FLAG)),
                      set(value, targetIn(word)),
                    ),
                  ),
                  when(eq(value, SAYS_WIDE), evaluateWide(at, value, local)),
                ),
              ),
              when(ne(value, targetIn(word)), schedule(held, at, word, value, local)),
            ),
          ),
          store32(at, word),
          set(entry, add(entry, 4)),
        ),
      ),
      put('waitingEnd', held.waiting),
    );
  });

const TAKE_PLANNED = 0;
const TAKE_DAY = 1;
const EVALUATE = 2;
const call =
  (index: number): Step =>
  (code) => {
    code.localGet(header.index).call(index);
  };

/** Rounds until nothing without delay is left; `isOpen` says whether the caller is to go on with the instant. */
const settle = (isOpen: Local): Step =>
  steps(
    call(EVALUATE),
    whilst(
      and(ne(field('plannedEnd'), field('planned')), not(isOpen)),
      steps(
        put('rounds', add(field('rounds'), 1)),
        when(
          or(gtU(field('rounds'), field('bound')), gtU(field('logEnd'), field('logMost'))),
          set(isOpen, 1),
          steps(call(TAKE_PLANNED), call(EVALUATE)),
        ),
      ),
    ),
    when(ne(field('storedEnd'), field('stored')), set(isOpen, 1)),
  );

/** The next day that has a list, into `slot`, and how many days away it is, into `days`; there is one. */
function findDay(slot: Local, days: Local, local: () => Local): Step {
  const place = local();
  const bits = local();
  return steps(
    set(place, and(add(field('today'), 1), field('mask'))),
    set(bits, and(load32(add(field('used'), shl(shrU(place, 5), 2))), shl(-1, and(place, 31)))),
    set(place, shrU(place, 5)),
    whilst(
      not(bits),
      steps(
        set(place, and(add(place, 1), shrU(field('mask'), 5))),
        set(bits, load32(add(field('used'), shl(place, 2)))),
      ),
    ),
    set(slot, or(shl(place, 5), ctz(bits))),
    set(days, add(and(sub(sub(slot, field('today')), 1), field('mask')), 1)),
  );
}

const goTo = (slot: Local, days: Local): Step =>
  steps(
    put('days', sub(field('days'), days)),
    put('elapsed', add(field('elapsed'), days)),
    put('today', slot),
  );

const closeInstant = steps(
  store32(field('endsEnd'), field('elapsed')),
  store32(field('endsEnd'), or(field('logEnd'), choose(field('rounds'), 1, 0)), 4),
  put('endsEnd', add(field('endsEnd'), field('endsStep'))),
  put('rounds', 0),
);

/** Instant by instant, as `how` says, and `code` says why it ends. */
const run = (): WasmFunction =>
  written(1, ['how'], [], ({ how }, local) => {
    const code = local();
    const isOpen = local();
    const slot = local();
    const days = local();
    const before = local();
    /** The next instant in which something is due; `code` says why there is none, or that it is not done with. */
    const oneInstant = when(
      not(field('usedDays')),
      set(code, AT_REST),
      steps(
        findDay(slot, days, local),
        when(
          gtU(days, field('days')),
          set(code, AT_REST),
          when(
            or(
              geU(add(field('events'), field('instants')), field('steps')),
              or(geU(field('logEnd'), field('logFull')), geU(field('endsEnd'), field('endsFull'))),
            ),
            set(code, PAUSED),
            steps(
              set(before, field('events')),
              put('begun', field('logEnd')),
              goTo(slot, days),
              call(TAKE_DAY),
              when(
                ne(field('events'), before),
                steps(
                  put('instants', add(field('instants'), 1)),
                  put('acted', field('elapsed')),
                  settle(isOpen),
                  when(isOpen, set(code, IN_INSTANT), closeInstant),
                ),
              ),
            ),
          ),
        ),
      ),
    );
    return steps(
      put('waitingEnd', field('waiting')),
      when(
        how,
        steps(
          when(and(how, BEGIN_DUE), steps(findDay(slot, days, local), goTo(slot, days), call(TAKE_DAY))),
          when(and(how, BEGIN_PLANNED), call(TAKE_PLANNED)),
          settle(isOpen),
          set(code, IN_INSTANT),
        ),
        repeat(oneInstant, not(code)),
      ),
      put('code', code),
    );
  });

/** The module; its `run` takes the address of the header. */
export function kernelModule(): Uint8Array<ArrayBuffer> {
  return moduleOf([takePlanned(), takeDay(), evaluateWaiting(), run()], 1);
}
