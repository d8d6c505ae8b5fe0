import type { Task } from '../../../circuit/exercise';
import { type Infer, text, z } from '../../../values/schema';
import { GIVEN, SCRATCH } from '../../rules';
import type { TaskKind } from '../task-kind';
import { QUANTITIES, readQuantity } from './quantity';

const MOST_LETTERS = 60;

const Asked = z.object({
  /** `number`, a time or a frequency: those need a unit. */
  quantity: z.enum(QUANTITIES),
  /** Bits of a word that is asked for digit by digit, as `1101`; null for a number. */
  bits: z.nullable(z.int().check(z.minimum(1), z.maximum(64))),
});

const Key = z.object({
  /** As it would be typed: `12.5 ns`, `13`, or the digits of a word. */
  value: text(MOST_LETTERS),
  /** How far an answer may be off, as a share of the value. */
  tolerance: z.number().check(z.minimum(0), z.maximum(1)),
});

const Answer = z.object({ kind: z.literal('number'), text: text(MOST_LETTERS) });

export type NumberAsked = Infer<typeof Asked>;
export type NumberKey = Infer<typeof Key>;
export type NumberAnswer = Infer<typeof Answer>;
export type NumberTask = Task<NumberAsked, NumberKey>;

/** Why a text is no answer, as a sentence; null where it is one. */
export function whyUnreadable({ quantity, bits }: NumberAsked, typed: string): string | null {
  if (bits !== null) {
    const digits = typed.replaceAll(/[\s_]/g, '');
    if (!/^[01]+$/.test(digits)) return 'Write the bits as 0 and 1.';
    return digits.length === bits ? null : `${digits.length} bits are written, and ${bits} are asked for.`;
  }
  if (readQuantity(typed, quantity) !== null) return null;
  if (quantity === 'time') return 'Write a time with its unit, such as 12.5 ns.';
  if (quantity === 'frequency') return 'Write a frequency with its unit, such as 80 MHz.';
  return 'Write a number: 13, -3, 0b1101 or 0xD.';
}

/** Rounding of a number that was typed in another unit. */
const ROUNDING = 1e-9;

function isRight({ quantity, bits }: NumberAsked, { value, tolerance }: NumberKey, typed: string): boolean {
  if (bits !== null) return typed.replaceAll(/[\s_]/g, '') === value.replaceAll(/[\s_]/g, '');
  const [is, wanted] = [readQuantity(typed, quantity), readQuantity(value, quantity)];
  if (is === null || wanted === null) return false;
  return Math.abs(is - wanted) <= Math.abs(wanted) * Math.max(tolerance, ROUNDING);
}

/** Digits of a value that count in a hash: fewer than rounding touches. */
const COUNTED_DIGITS = 12;

/** A value in one writing; null where it cannot be read. */
function asText(asked: NumberAsked, typed: string): string | null {
  if (whyUnreadable(asked, typed)) return null;
  if (asked.bits !== null) return typed.replaceAll(/[\s_]/g, '');
  return readQuantity(typed, asked.quantity)!.toPrecision(COUNTED_DIGITS);
}

/** A value that says nothing, in the form that is asked for. */
function blankOf({ quantity, bits }: NumberAsked): string {
  if (bits !== null) return '0'.repeat(bits);
  return { number: '1', time: '1 ns', frequency: '1 Hz' }[quantity];
}

/** A value is asked for, with its unit where it has one. */
export const number = {
  kind: 'number',
  name: 'Give a number',
  says: 'The student gives a value: a delay, a frequency, a count, the bits of a number.',
  gistName: 'Answer',
  asked: Asked,
  key: Key,
  answer: Answer,
  strange: ({ asked, key }) => {
    const why = whyUnreadable(asked, key.value);
    return why && `its wanted value cannot be read. ${why}`;
  },
  hashed: {
    whyNot: ({ key }) =>
      key.tolerance > 0 ? 'a value that may be off by some has many right answers' : null,
    blank: ({ asked, key }) => ({ ...key, value: blankOf(asked) }),
    wanted: ({ asked, key }) => asText(asked, key.value)!,
    given: ({ asked }, { detail }) => asText(asked, detail),
    bits: ({ asked }) => asked.bits,
  },
  said: ({ asked }, { detail }) => asText(asked, detail) ?? (detail || null),
  rules: ({ given }) => (given ? GIVEN : SCRATCH),
  mark({ asked, key }, { answer }) {
    const typed = answer?.text.trim() ?? '';
    const why = typed === '' ? 'Nothing is filled in yet.' : whyUnreadable(asked, typed);
    const right = !why && isRight(asked, key, typed);
    return {
      right: right ? 1 : 0,
      of: 1,
      word: 'answer',
      complaints: why ? [why] : [],
      solved: right,
      wrong: null,
      gist: typed,
      detail: typed,
    };
  },
} satisfies TaskKind<NumberAsked, NumberKey, NumberAnswer, string>;
