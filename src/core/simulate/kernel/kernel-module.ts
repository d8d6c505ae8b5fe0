import { Code, moduleOf } from '../../values/wasm/module';
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

/** The module; its `run` takes the address of the header. */
export function kernelModule(): Uint8Array<ArrayBuffer> {
  const header = new Local(0);
  const locals = new Locals(1);
  const local = () => locals.next();
  const field = (name: keyof typeof HEADER) => load32(header, HEADER[name]);
  const put = (name: keyof typeof HEADER, value: Operand) => store32(header, value, HEADER[name]);

  // What is read and written all the time is held in locals, and put back at the end.
  const held = {
    today: local(),
    elapsed: local(),
    days: local(),
    usedDays: local(),
    free: local(),
    bump: local(),
    plannedEnd: local(),
    storedEnd: local(),
    logEnd: local(),
    endsEnd: local(),
    events: local(),
    instants: local(),
    rounds: local(),
  };
  const known = {
    mask: local(),
    heads: local(),
    used: local(),
    values: local(),
    table: local(),
    waiting: local(),
    planned: local(),
    logStep: local(),
  };
  const code = local();
  const isOpen = local();
  const waitingEnd = local();
  const at = local();
  const word = local();
  const value = local();
  const change = local();
  const reading = local();
  const readingsEnd = local();
  const reader = local();
  const readerWord = local();
  const shift = local();
  const slot = local();
  const bits = local();
  const place = local();
  const chunk = local();
  const entry = local();
  const chunkEnd = local();
  const tail = local();
  const head = local();
  const days = local();
  const first = local();
  const next = local();
  const last = local();
  const eventsBefore = local();

  const valueIn = (of: Operand): Expression => and(shrU(of, VALUE), BITS);
  const targetIn = (of: Operand): Expression => and(shrU(of, TARGET), BITS);

  /** The cell `at`, whose word is `word`, takes on `value`; its readers are added to the waiting ones. */
  const takeOn = steps(
    set(change, sub(value, valueIn(word))),
    store32(held.logEnd, or(at, or(shl(valueIn(word), 2), value))),
    set(held.logEnd, add(held.logEnd, known.logStep)),
    store32(at, or(and(word, ~(TARGET_BITS | VALUE_BITS)), or(shl(value, TARGET), shl(value, VALUE)))),
    store8(add(known.values, shrU(at, 4)), value),
    set(held.events, add(held.events, 1)),
    set(reading, load32(at, 8)),
    set(readingsEnd, load32(at, 12)),
    whilst(
      ne(reading, readingsEnd),
      steps(
        set(shift, load32(reading)),
        set(reader, and(shift, -16)),
        set(readerWord, add(load32(reader), shl(change, and(shift, 15)))),
        store32(waitingEnd, reader),
        set(waitingEnd, add(waitingEnd, shl(and(xor(shrU(readerWord, WAITS), 1), 1), 2))),
        store32(reader, or(readerWord, FLAG)),
        set(reading, add(reading, 4)),
      ),
    ),
  );

  /** Everything planned takes effect. */
  const takePlanned = steps(
    set(entry, known.planned),
    whilst(
      ne(entry, held.plannedEnd),
      steps(
        set(value, and(load32(entry), BITS)),
        set(at, and(load32(entry), -16)),
        set(word, load32(at)),
        when(ne(value, valueIn(word)), takeOn),
        set(entry, add(entry, 4)),
      ),
    ),
    set(held.plannedEnd, known.planned),
  );

  /** The next day that has a list, into `slot`, and how many days away it is, into `days`; there is one. */
  const findDay = steps(
    set(place, and(add(held.today, 1), known.mask)),
    set(bits, and(load32(add(known.used, shl(shrU(place, 5), 2))), shl(-1, and(place, 31)))),
    set(place, shrU(place, 5)),
    whilst(
      not(bits),
      steps(
        set(place, and(add(place, 1), shrU(known.mask, 5))),
        set(bits, load32(add(known.used, shl(place, 2)))),
      ),
    ),
    set(slot, or(shl(place, 5), ctz(bits))),
    set(days, add(and(sub(sub(slot, held.today), 1), known.mask), 1)),
  );

  /** What is due on the day `slot` takes effect; its list is given back. */
  const takeDay = steps(
    set(held.days, sub(held.days, days)),
    set(held.elapsed, add(held.elapsed, days)),
    set(held.today, slot),
    set(place, add(known.used, shl(shrU(slot, 5), 2))),
    store32(place, xor(load32(place), shl(1, and(slot, 31)))),
    set(held.usedDays, sub(held.usedDays, 1)),
    set(head, add(known.heads, shl(slot, 3))),
    set(tail, load32(head, 4)),
    set(chunk, load32(head)),
    store32(head, 0, 4),
    set(first, chunk),
    repeat(
      steps(
        set(next, load32(chunk)),
        set(entry, add(chunk, 4)),
        set(chunkEnd, choose(next, add(chunk, CHUNK), tail)),
        whilst(
          ne(entry, chunkEnd),
          steps(
            set(at, load32(entry)),
            set(word, load32(at)),
            set(value, targetIn(word)),
            when(and(eq(shrU(word, DAY), slot), ne(value, valueIn(word))), takeOn),
            set(entry, add(entry, 4)),
          ),
        ),
        set(last, chunk),
        set(chunk, next),
      ),
      chunk,
    ),
    store32(last, held.free),
    set(held.free, first),
  );

  /** Puts `at` on the list of the day `slot`. */
  const append = steps(
    set(head, add(known.heads, shl(slot, 3))),
    set(tail, load32(head, 4)),
    when(
      not(and(tail, CHUNK - 1)),
      steps(
        when(
          held.free,
          steps(set(chunk, held.free), set(held.free, load32(chunk))),
          steps(set(chunk, held.bump), set(held.bump, add(held.bump, CHUNK))),
        ),
        when(
          tail,
          store32(sub(tail, CHUNK), chunk),
          steps(
            store32(head, chunk),
            set(place, add(known.used, shl(shrU(slot, 5), 2))),
            store32(place, or(load32(place), shl(1, and(slot, 31)))),
            set(held.usedDays, add(held.usedDays, 1)),
          ),
        ),
        store32(chunk, 0),
        set(tail, add(chunk, 4)),
      ),
    ),
    store32(tail, at),
    store32(head, add(tail, 4), 4),
  );

  /** A gate of many inputs, whose cell is `at`: its output into `value`. */
  const evaluateWide = steps(
    set(place, load32(add(field('reads'), shrU(at, 2)))),
    set(change, load32(place)),
    set(bits, 0),
    set(days, 0),
    set(chunkEnd, add(place, shl(and(change, 0xffffff), 2))),
    repeat(
      steps(
        set(place, add(place, 4)),
        set(value, load8(load32(place))),
        set(bits, or(bits, shl(2, value))),
        set(days, xor(days, and(value, 1))),
      ),
      ne(place, chunkEnd),
    ),
    set(value, load8(add(add(field('wide'), shl(shrU(change, 24), 5)), or(bits, days)))),
  );

  /** The output of `at`, which is not its target, is planned or put on the list of a day. */
  const schedule = when(
    eq(value, valueIn(word)),
    set(word, or(and(word, ~TARGET_BITS), shl(value, TARGET))),
    steps(
      set(change, load32(at, 4)),
      set(days, and(change, 0xffff)),
      set(change, shrU(change, 16)),
      when(ne(value, 1), set(days, choose(and(gtU(value, 1), ltU(days, change)), days, change))),
      when(
        days,
        steps(
          set(slot, and(add(held.today, days), known.mask)),
          set(word, or(and(word, FLAG - 1 - TARGET_BITS), or(shl(value, TARGET), shl(slot, DAY)))),
          append,
        ),
        steps(
          set(word, or(and(word, ~TARGET_BITS), shl(valueIn(word), TARGET))),
          store32(held.plannedEnd, or(at, value)),
          set(held.plannedEnd, add(held.plannedEnd, 4)),
        ),
      ),
    ),
  );

  /** Room for the lists to which all that wait may be put. */
  const makeRoom = steps(
    set(bits, shrU(sub(waitingEnd, known.waiting), 2)),
    set(bits, shl(add(add(choose(ltU(bits, known.mask), bits, add(known.mask, 1)), shrU(bits, 5)), 2), 8)),
    when(
      gtU(add(held.bump, bits), shl(memoryPages, PAGE)),
      when(eq(growMemory(add(shrU(bits, PAGE), 2)), -1), trap),
    ),
  );

  const evaluateWaiting = steps(
    makeRoom,
    set(entry, known.waiting),
    whilst(
      ne(entry, waitingEnd),
      steps(
        set(at, load32(entry)),
        set(word, xor(load32(at), FLAG)),
        set(value, load8(add(known.table, and(word, PLACE)))),
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
                    store32(held.storedEnd, at),
                    set(held.storedEnd, add(held.storedEnd, 4)),
                    set(word, or(word, FLAG)),
                    set(value, targetIn(word)),
                  ),
                ),
                when(eq(value, SAYS_WIDE), evaluateWide),
              ),
            ),
            when(ne(value, targetIn(word)), schedule),
          ),
        ),
        store32(at, word),
        set(entry, add(entry, 4)),
      ),
    ),
    set(waitingEnd, known.waiting),
  );

  /** Rounds until nothing without delay is left; `isOpen` says whether the caller is to go on with the instant. */
  const settle = steps(
    evaluateWaiting,
    whilst(
      and(ne(held.plannedEnd, known.planned), not(isOpen)),
      steps(
        set(held.rounds, add(held.rounds, 1)),
        when(
          or(gtU(held.rounds, field('bound')), gtU(held.logEnd, field('logMost'))),
          set(isOpen, 1),
          steps(takePlanned, evaluateWaiting),
        ),
      ),
    ),
    when(ne(held.storedEnd, field('stored')), set(isOpen, 1)),
  );

  const closeInstant = steps(
    store32(held.endsEnd, held.elapsed),
    store32(held.endsEnd, or(held.logEnd, choose(held.rounds, 1, 0)), 4),
    set(held.endsEnd, add(held.endsEnd, field('endsStep'))),
    set(held.rounds, 0),
  );

  /** The next instant in which something is due; `code` says why there is none, or that it is not done with. */
  const oneInstant = when(
    not(held.usedDays),
    set(code, AT_REST),
    steps(
      findDay,
      when(
        gtU(days, held.days),
        set(code, AT_REST),
        when(
          or(
            geU(add(held.events, held.instants), field('steps')),
            or(geU(held.logEnd, field('logFull')), geU(held.endsEnd, field('endsFull'))),
          ),
          set(code, PAUSED),
          steps(
            set(eventsBefore, held.events),
            put('begun', held.logEnd),
            takeDay,
            when(
              ne(held.events, eventsBefore),
              steps(
                set(held.instants, add(held.instants, 1)),
                put('acted', held.elapsed),
                settle,
                when(isOpen, set(code, IN_INSTANT), closeInstant),
              ),
            ),
          ),
        ),
      ),
    ),
  );

  const how = field('how');
  const body = steps(
    ...Object.entries({ ...held, ...known }).map(([name, where]) =>
      set(where, field(name as keyof typeof HEADER)),
    ),
    set(waitingEnd, known.waiting),
    when(
      how,
      steps(
        when(and(how, BEGIN_DUE), steps(findDay, takeDay)),
        when(and(how, BEGIN_PLANNED), takePlanned),
        settle,
        set(code, IN_INSTANT),
      ),
      repeat(oneInstant, not(code)),
    ),
    ...Object.entries(held).map(([name, where]) => put(name as keyof typeof HEADER, where)),
    put('code', code),
  );
  const written = new Code();
  body(written);
  return moduleOf([{ parameters: 1, i32Locals: locals.added, v128Locals: 0, code: written }], 1);
}
