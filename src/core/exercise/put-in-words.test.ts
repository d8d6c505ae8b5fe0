import { DEFAULT_SETTINGS } from '../circuit/sheet';
import { interlock, Sketch } from '../testing/sketch';
import { expectDone } from '../values/result';
import { formulasInWords, runInWords, tableInWords } from './put-in-words';

const { sheet } = interlock();

test('the table of a sheet goes into the words, with signs of Markdown as they are', () => {
  const lines = expectDone(tableInWords(sheet, [sheet])).split('\n');
  expect(lines.slice(0, 3)).toEqual([
    '| Key | Bars | Clear | Drive | Warn |',
    '| :-: | :-: | :-: | :-: | :-: |',
    '| 0 | 0 | 0 | 0 | 0 |',
  ]);
  expect(lines).toHaveLength(10);
  const s = new Sketch();
  s.place('switch', 0, 0, 'A|B');
  s.place('lamp', 20, 0, '*Y*');
  s.wire('switch1.Y', 'lamp1.A');
  expect(expectDone(tableInWords(s.sheet, [s.sheet])).split('\n')[0]).toBe('| A\\|B | \\*Y\\* |');
});

test('its formulas go into the words as code, the smallest sums', () => {
  expect(expectDone(formulasInWords(sheet, [sheet]))).toBe("`Drive = Key Bars Clear`  \n`Warn = Key Bars'`");
});

test('a run goes into the words reading by reading; a sheet without outputs says what is missing', () => {
  const s = new Sketch();
  s.place('clock', 0, 8, 'Clk', { hertz: 1e8 });
  s.place('constant', 0, 0, '', { value: 1 });
  s.place('tff', 12, 4);
  s.place('lamp', 24, 2, 'Half');
  s.wire('constant1.Y', 'tff1.T');
  s.wire('clock1.Y', 'tff1.C');
  s.wire('tff1.Q', 'lamp1.A');
  const source = (of: Sketch) => ({
    sheet: of.sheet,
    sheets: of.lesson.sheets,
    settings: DEFAULT_SETTINGS,
    on: new Set<string>(),
  });
  const lines = expectDone(runInWords(source(s))).split('\n');
  expect(lines.slice(0, 5)).toEqual([
    '| just before | Half |',
    '| :-: | :-: |',
    '| 5 ns | 0 |',
    '| 15 ns | 1 |',
    '| 25 ns | 0 |',
  ]);
  expect(runInWords(source(new Sketch()))).toMatchObject({ ok: false });
});
