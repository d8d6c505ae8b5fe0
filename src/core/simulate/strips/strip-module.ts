import {
  addLong,
  andLong,
  ctzLong,
  type Long,
  LongLocal,
  loadLong,
  lowOf,
  notLong,
  onesLong,
  orLong,
  setLong,
  shlLong,
  shrLong,
  signed,
  storeLong,
  subLong,
  xorLong,
} from '../../values/wasm/long';
import { Code, moduleOf, type WasmFunction } from '../../values/wasm/module';
import {
  add,
  and,
  Local,
  Locals,
  load32,
  not,
  or,
  type Step,
  set,
  shl,
  shrU,
  steps,
  store8,
  store32,
  sub,
  when,
  whilst,
  xor,
} from '../../values/wasm/scalar';
import {
  COUNT,
  EVALUATE,
  FIELD,
  HEADER,
  INNER,
  INVERTED,
  LONG,
  MOVE,
  OPERATION,
  PLACE,
  READ,
  REST,
  SHIFT,
  SHIFTS,
  TAKES_AND,
  TAKES_XOR,
  UNEVEN,
} from './strip-layout';

/*
 * Timed runs with many days at once, as WebAssembly over the memory of strip-layout.ts. The word of a net has a bit for each of
 * 64 successive days, so that one operation on words evaluates a gate on all of them, and a shift by a bit is a delay by a day
 * (the parallel technique: Maurer and Wang, 1990, "Techniques for unit-delay compiled simulation"). A delay of d days that
 * swallows shorter pulses lets a one pass where the word has had d ones before, a zero where it has had d zeros, and holds
 * the output elsewhere: an addition carries the held value from day to day.
 */

type Field = keyof typeof HEADER;
const header = new Local(0);
const field = (name: Field) => load32(header, HEADER[name]);

const ONE = signed(1);
const ALL = signed(-1);

/** The locals of a function, those of 32 bits first. */
function locals(shorts: number): { short: () => Local; long: () => LongLocal; longs: () => number } {
  const first = new Locals(1);
  const second = new Locals(1 + shorts);
  return {
    short: () => first.next(),
    long: () => new LongLocal(second.next().index),
    longs: () => second.added,
  };
}

function written(shorts: number, body: (own: ReturnType<typeof locals>) => Step): WasmFunction {
  const own = locals(shorts);
  const code = new Code();
  body(own)(code);
  return { parameters: 1, i32Locals: shorts, i64Locals: own.longs(), v128Locals: 0, code };
}

/** A word of ones from bit `history` on, `days` of them. */
const spanOf = (days: Long): Long => shlLong(days, field('history'));

/** Shifts a word as the lengths in `at` say, and joins it each time with itself. */
const spread = (word: LongLocal, at: Local, join: (a: Long, b: Long) => Long): Step =>
  steps(
    ...SHIFTS.map((i) =>
      setLong(word, join(word, shlLong(word, and(shrU(at, SHIFT * i), (1 << SHIFT) - 1)))),
    ),
  );

/** Whether a word is the same on all days: 0 if it is. */
const varies = (word: Long): Long => xorLong(word, shrLong(word, 63));

/** Does something with each operation that is marked, from the first to the last. */
function eachMarked(body: (at: Local, mark: Local) => Step, short: () => Local, long: () => LongLocal): Step {
  const [eight, end, at, mark] = [short(), short(), short(), short()];
  const marks = long();
  return steps(
    set(eight, field('marks')),
    set(end, field('marksEnd')),
    whilst(
      sub(end, eight),
      steps(
        setLong(marks, loadLong(eight)),
        whilst(
          not(notLong(marks)),
          steps(
            set(mark, add(eight, shrU(ctzLong(marks), 3))),
            set(at, add(field('operations'), shl(sub(mark, field('marks')), OPERATION))),
            body(at, mark),
            // What has been marked meanwhile is behind it.
            setLong(marks, andLong(loadLong(eight), shlLong(shlLong(ALL, shl(sub(mark, eight), 3)), 8))),
          ),
        ),
        set(eight, add(eight, 8)),
      ),
    ),
  );
}

/** Evaluates all operations that are marked, on the days to come. */
const evaluate = (): WasmFunction =>
  written(10, ({ short, long }) => {
    const [kind, events, evaluated] = [short(), short(), short()];
    const [shifts, reader, readersEnd] = [short(), short(), short()];
    const [a, b, now, word, fresh, span] = [long(), long(), long(), long(), long(), long()];
    const [ones, zeros, sum, changes, all, pending] = [long(), long(), long(), long(), long(), long()];
    const mask = (bit: number) => signed(sub(0, and(shrU(kind, bit), 1)));
    /** The value of the gate, at once. */
    const value = xorLong(
      xorLong(andLong(andLong(a, b), mask(TAKES_AND)), andLong(xorLong(a, b), mask(TAKES_XOR))),
      mask(INVERTED),
    );
    const firstNew = shlLong(ONE, field('history'));
    const isKind = (bit: number) => and(kind, 1 << bit);
    const markReaders = (at: Local) =>
      steps(
        set(reader, load32(at, FIELD.from)),
        set(readersEnd, load32(at, FIELD.to)),
        whilst(sub(readersEnd, reader), steps(store8(load32(reader), 1), set(reader, add(reader, 4)))),
      );
    /** Where there have been ones for the delay to rise, and where zeros for the one to fall. */
    const inTwo = (at: Local) =>
      steps(
        setLong(ones, now),
        set(shifts, load32(at, FIELD.rise)),
        spread(ones, shifts, andLong),
        setLong(ones, shlLong(ones, 1)),
        setLong(zeros, xorLong(now, ALL)),
        set(shifts, load32(at, FIELD.fall)),
        spread(zeros, shifts, andLong),
        setLong(zeros, shlLong(zeros, 1)),
      );
    /** The same for one delay: where the value has not changed for it. */
    const inOne = (at: Local) =>
      steps(
        setLong(zeros, xorLong(now, shlLong(now, 1))),
        set(shifts, load32(at, FIELD.rise)),
        spread(zeros, shifts, orLong),
        setLong(zeros, xorLong(shlLong(zeros, 1), ALL)),
        setLong(ones, andLong(shlLong(now, 1), zeros)),
        setLong(zeros, andLong(xorLong(shlLong(now, 1), ALL), zeros)),
      );
    /** What the output is on the days to come, into `changes`. */
    const delayed = (at: Local) =>
      when(
        isKind(LONG),
        steps(
          when(isKind(UNEVEN), inTwo(at), inOne(at)),
          setLong(ones, andLong(ones, fresh)),
          // From here on it is where the output is not made 0: there it is held, which is the carry of this sum.
          setLong(zeros, andLong(xorLong(zeros, ALL), fresh)),
          setLong(sum, addLong(addLong(zeros, ones), andLong(shlLong(word, 1), firstNew))),
          setLong(changes, orLong(ones, andLong(zeros, xorLong(sum, xorLong(zeros, ones))))),
        ),
        setLong(changes, andLong(shlLong(now, 1), fresh)),
      );
    const one = (at: Local, mark: Local): Step =>
      steps(
        setLong(a, loadLong(load32(at, FIELD.a))),
        setLong(b, loadLong(load32(at, FIELD.b))),
        set(kind, load32(at, FIELD.kind)),
        setLong(word, loadLong(load32(at, FIELD.out))),
        setLong(now, value),
        set(evaluated, add(evaluated, 1)),
        when(
          notLong(orLong(xorLong(word, now), orLong(varies(a), varies(b)))),
          store8(mark, 0),
          when(
            isKind(INNER),
            steps(storeLong(load32(at, FIELD.out), now), markReaders(at)),
            steps(
              delayed(at),
              setLong(word, orLong(andLong(word, xorLong(fresh, ALL)), changes)),
              storeLong(load32(at, FIELD.out), word),
              setLong(pending, orLong(pending, xorLong(word, now))),
              setLong(changes, andLong(xorLong(word, shlLong(word, 1)), span)),
              when(
                not(notLong(changes)),
                steps(
                  setLong(all, orLong(all, changes)),
                  set(events, add(events, onesLong(changes))),
                  markReaders(at),
                ),
              ),
            ),
          ),
        ),
      );
    return steps(
      setLong(fresh, spanOf(ALL)),
      setLong(span, spanOf(subLong(shlLong(ONE, field('days')), ONE))),
      eachMarked(one, short, long),
      store32(header, events, HEADER.events),
      store32(header, evaluated, HEADER.evaluated),
      storeLong(header, all, HEADER.changed),
      storeLong(header, pending, HEADER.pending),
    );
  });

/** Does something with each word, from address 0 up to where a field says. */
const eachWord = (end: Field, body: (at: Local, word: Long) => Step): WasmFunction =>
  written(2, ({ short }) => {
    const [at, last] = [short(), short()];
    return steps(
      set(at, 0),
      set(last, field(end)),
      whilst(sub(last, at), steps(body(at, loadLong(at)), set(at, add(at, 8)))),
    );
  });

/** The days done become those before today. */
const move = () => eachWord('wordsEnd', (at, word) => storeLong(at, shrLong(word, field('days'))));
/** The value after the days done is that of all days. */
const rest = () =>
  eachWord('wordsEnd', (at, word) =>
    storeLong(
      at,
      subLong(signed(0), andLong(shrLong(word, sub(add(field('history'), field('days')), 1)), ONE)),
    ),
  );
/** The values of today, a byte each. */
const read = () =>
  eachWord('netsEnd', (at, word) =>
    store8(add(field('values'), shrU(at, 3)), and(lowOf(shrLong(word, sub(field('history'), 1))), 1)),
  );

/** Does something with each net that has changed on the days done, and the bits of its changes. */
const eachChanged = (
  shorts: number,
  body: (changes: LongLocal, word: LongLocal, out: Local, short: () => Local, long: () => LongLocal) => Step,
): WasmFunction =>
  written(5 + shorts, ({ short, long }) => {
    const out = short();
    const [word, changes, span] = [long(), long(), long()];
    const changed = body(changes, word, out, short, long);
    const one = (at: Local): Step =>
      when(
        not(and(load32(at, FIELD.kind), 1 << INNER)),
        steps(
          set(out, load32(at, FIELD.out)),
          setLong(word, loadLong(out)),
          setLong(changes, andLong(xorLong(word, shlLong(word, 1)), span)),
          changed,
        ),
      );
    return steps(
      setLong(span, spanOf(subLong(shlLong(ONE, field('days')), ONE))),
      eachMarked(one, short, long),
    );
  });

/** Counts the changes of each day: bit `d` of the words from `planes` on is the number of those on day `d`, the lowest first. */
const count = () =>
  eachChanged(1, (changes, _word, _out, short, long) => {
    const plane = short();
    const was = long();
    return steps(
      set(plane, field('planes')),
      whilst(
        not(notLong(changes)),
        steps(
          setLong(was, loadLong(plane)),
          storeLong(plane, xorLong(was, changes)),
          setLong(changes, andLong(was, changes)),
          set(plane, add(plane, 8)),
        ),
      ),
    );
  });

/** Each change as `Notes` gets it, where the place of its day says. */
const place = () =>
  eachChanged(2, (changes, word, out, short) => {
    const [slot, entry] = [short(), short()];
    const bit = ctzLong(changes);
    return when(
      not(notLong(changes)),
      steps(
        // The value before is in bits 2 and 3, the one after in bits 0 and 1; from change to change they take turns.
        set(entry, or(shl(out, 1), shrU(4, shl(and(lowOf(shrLong(word, bit)), 1), 1)))),
        whilst(
          not(notLong(changes)),
          steps(
            set(slot, add(field('places'), shl(bit, 2))),
            store32(load32(slot), entry),
            store32(slot, add(load32(slot), 4)),
            set(entry, xor(entry, 5)),
            setLong(changes, andLong(changes, subLong(changes, ONE))),
          ),
        ),
      ),
    );
  });

const FUNCTIONS = [
  [EVALUATE, evaluate],
  [MOVE, move],
  [REST, rest],
  [READ, read],
  [COUNT, count],
  [PLACE, place],
] as const;

/** Calls the function that `how` names. */
const run = (): WasmFunction =>
  written(0, () =>
    steps(
      ...FUNCTIONS.map(([how], i) =>
        when(and(field('how'), how), (code) => {
          code.localGet(header.index).call(i);
        }),
      ),
    ),
  );

/** The bytes of the module, which is the same for all circuits. */
export const stripModule = (): Uint8Array<ArrayBuffer> =>
  moduleOf([...FUNCTIONS.map(([, make]) => make()), run()], 1);
