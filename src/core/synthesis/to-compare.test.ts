import type { Lesson } from '../circuit/lesson';
import { readVerilog } from '../formats/verilog/read';
import { proveCombinational } from '../logic/equivalence/prove';
import { compile } from '../netlist/compile';
import { interlock, Sketch } from '../testing/sketch';
import { sentence } from '../values/result';
import { asGuest, calledAs, pairsByName, sheetOfFormulas, unpaired } from './to-compare';

const { sheet } = interlock();
const verdict = (text: string) => {
  const made = sheetOfFormulas(text, sheet);
  if (!made.ok) return sentence(made.problem);
  const proof = proveCombinational(compile(sheet), compile(made.value));
  return proof.ok ? proof.value.verdict : proof.problem.message;
};

test('a circuit is compared with what is typed', () => {
  expect(verdict("Drive = Key Bars Clear\nWarn = Key Bars'")).toBe('equivalent');
  expect(verdict("Drive = Key Bars Clear; Warn = (Key' + Bars)'")).toBe('equivalent');
  expect(verdict("Drive = Key Bars\nWarn = Key Bars'")).toBe('different');
});

test('what cannot be compared is said, with its place', () => {
  expect(verdict('  ')).toBe('Type a formula, such as Drive = Key Bars.');
  expect(verdict('Key Bars')).toMatch('does not say which output it is: begin with Drive =');
  expect(verdict('Drive = Key (')).toMatch(/^“Drive = Key \(”, character \d+: /);
  expect(verdict('Drive = Key\nDrive = Bars')).toBe('“Drive” is there twice.');
  expect(verdict('Drive = Key Brake\nWarn = Key')).toMatch('the input Brake is only in one of them');
});

test('inputs and outputs that are called otherwise are paired by hand', () => {
  const s = new Sketch();
  for (const [i, name] of ['K', 'Bars'].entries()) s.place('switch', 0, 6 * i, name);
  s.place('nand', 10, 0);
  s.place('lamp', 20, 0, 'Stop');
  s.wire('switch1.Y', 'nand1.A');
  s.wire('switch2.Y', 'nand1.B');
  s.wire('nand1.Y', 'lamp1.A');
  const made = sheetOfFormulas("Halt = Key' + Bars'", s.sheet);
  if (!made.ok) throw new Error(made.problem.message);
  const { value: other } = made;
  const pairs = pairsByName(s.sheet, other);
  expect(pairs).toEqual([
    { what: 'input', mine: 'K', theirs: 'K' },
    { what: 'input', mine: 'Bars', theirs: 'Bars' },
    { what: 'output', mine: 'Stop', theirs: null },
  ]);
  expect(unpaired(other, pairs, 'output')).toEqual(['Halt']);
  const theirs = new Sketch();
  for (const [i, name] of ['Key', 'Bars'].entries()) theirs.place('switch', 0, 6 * i, name);
  theirs.place('nand', 10, 0);
  theirs.place('lamp', 20, 0, 'Halt');
  theirs.wire('switch1.Y', 'nand1.A');
  theirs.wire('switch2.Y', 'nand1.B');
  theirs.wire('nand1.Y', 'lamp1.A');
  const byHand = pairsByName(s.sheet, theirs.sheet).map((p) =>
    p.mine === 'K' ? { ...p, theirs: 'Key' } : p.mine === 'Stop' ? { ...p, theirs: 'Halt' } : p,
  );
  const proof = proveCombinational(compile(s.sheet), compile(calledAs(theirs.sheet, byHand)));
  expect(proof.ok && proof.value.verdict).toBe('equivalent');
});

test('a sheet of another lesson brings the sheets of its blocks, whatever they are called here', () => {
  const other = interlockAsBlock();
  // The same ids stand for other sheets here.
  const here = interlockAsBlock('Key | Bars');
  expect(other.sheets.map((s) => s.id)).toEqual(here.sheets.map((s) => s.id));
  const guest = asGuest(here, other, other.sheets[0]!.id)!;
  const [own, theirs] = [compile(other.sheets[0]!, other.sheets), compile(guest.sheet, guest.sheets)];
  expect(theirs.diagnostics.map((d) => d.code)).toEqual(own.diagnostics.map((d) => d.code));
  const proof = proveCombinational(own, theirs);
  expect(proof.ok && proof.value.verdict).toBe('equivalent');
  expect(asGuest(here, other, 'gone')).toBeNull();
});

/** A sheet with the interlock as a block in it. */
function interlockAsBlock(drive = 'Key & Bars & Clear'): Lesson {
  const read = readVerilog(
    `module both(input Key, Bars, Clear, output Drive, Warn);
       drive d(.Key(Key), .Bars(Bars), .Clear(Clear), .Drive(Drive), .Warn(Warn));
     endmodule
     module drive(input Key, Bars, Clear, output Drive, Warn);
       assign Drive = ${drive};
       assign Warn = Key & ~Bars;
     endmodule`,
    'Both',
  );
  if (!read.ok) throw new Error(read.problem.message);
  return read.value;
}
