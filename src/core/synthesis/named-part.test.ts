import { emptyLesson } from '../circuit/lesson';
import { PLACEABLE } from '../parts/catalogue';
import { Sketch } from '../testing/sketch';
import { namedPart } from './named-part';

const lesson = emptyLesson('l', 'L');
const read = (text: string, on = lesson, sheet = 'sheet1') => {
  const part = namedPart(on, sheet, text, PLACEABLE);
  if (!part) return null;
  if (!part.ok) return part.problem.message;
  const { kind, params, labels } = part.value;
  return `${kind.spoken(params)}: ${labels.join('/')}`;
};

test.each([
  ['Total = 8-bit register', 'register of 8 bits, rising edge: Total'],
  ['Ride = counter 12', 'counter of 12 bits, 4096 states, up: Ride'],
  ['Laps = counter', 'counter of 4 bits, 16 states, up: Laps'],
  ['Odd = xor gate', 'two-input XOR: Odd'],
  ['Q = D flip flop', 'D flip-flop, rising edge: Q'],
  ['Total = 99-bit register', 'Register does not understand “99”: bits from 1 to 32'],
  ['Queue = 2 to 4 decoder', 'decoder, 2 to 4: Queue'],
])('%s is a part with a name: %s', (text, said) => {
  expect(read(text)).toBe(said);
});

test.each([
  'Y = A and B',
  'Y = Counter',
  'Y = counter done',
  'Y = bus ready',
  'Y = button',
  'Y = clock',
  'Y = d',
  'Y = frobnicator 3',
  'Hint = text Mind the gap 3',
  'A, B = counter 12',
  'F(A) = counter 12',
  '= counter 12',
  'counter 12',
])('%s is none', (text) => {
  expect(read(text)).toBeNull();
});

test('a name that the sheet has is left alone', () => {
  const s = new Sketch();
  s.place('lamp', 0, 0, 'Ride');
  s.place('switch', 0, 8, 'counter');
  expect(read('Ride = counter 12', s.lesson, s.sheet.id)).toBeNull();
  expect(read('Laps = counter', s.lesson, s.sheet.id)).toBeNull();
  expect(read('Laps = register', s.lesson, s.sheet.id)).not.toBeNull();
});
