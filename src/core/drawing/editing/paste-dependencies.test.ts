import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { emptySheet, type Sheet } from '../../circuit/sheet';
import { blockParams } from '../../netlist/blocks';
import { Sketch } from '../../testing/sketch';
import { sheetsToAdd, sheetsUsedBy, withSheetIds } from './paste-dependencies';

/** A half adder's sheet with an id. */
function half(id: string, name = 'Half adder'): Sheet {
  const s = new Sketch();
  s.place('port', 0, 0, 'A', { direction: 'in' });
  s.place('port', 20, 0, 'Sum', { direction: 'out' });
  s.wire('port1.Y', 'port2.A');
  return { ...s.sheet, id, name };
}

function holding(id: string, name: string, inside: Sheet): Sheet {
  const s = new Sketch();
  s.place('block', 0, 0, '', blockParams(inside));
  return { ...s.sheet, id, name };
}

const lessonOf = (...sheets: Sheet[]): Lesson => ({ ...emptyLesson('test-lesson', 'T'), sheets });

test('all sheets that blocks need are found, by way of others too', () => {
  const inner = half('h');
  const full = holding('f', 'Full adder', inner);
  const outer = holding('o', 'Four bits', full);
  expect([...sheetsUsedBy(lessonOf(outer, full, inner), outer)].sort()).toEqual(['f', 'h']);
});

test('they come under free ids and names, and blocks lead to them', () => {
  const inner = half('sheet1');
  const full = holding('sheet2', 'Full adder', inner);
  const here = lessonOf(emptySheet('sheet1', 'Full adder'), emptySheet('sheet2', 'Other'));
  const { added, ids } = sheetsToAdd(here, [full, inner]);
  expect(added.map((s) => s.name)).toEqual(['Half adder', 'Full adder 2']);
  expect(new Set([...added.map((s) => s.id), 'sheet1', 'sheet2']).size).toBe(4);
  const [block] = added[1]!.parts.values();
  expect(block!.params.sheet).toBe(added[0]!.id);
  const use = withSheetIds(holding('x', 'Use', full), ids);
  expect([...use.parts.values()][0]!.params.sheet).toBe(added[1]!.id);
});

test('what the lesson has already is not brought twice', () => {
  const inner = half('sheet7');
  const full = holding('sheet8', 'Full adder', inner);
  const first = sheetsToAdd(lessonOf(emptySheet('sheet1', 'Sheet 1')), [full, inner]);
  const here = lessonOf(emptySheet('sheet1', 'Sheet 1'), ...first.added);
  expect(sheetsToAdd(here, [full, inner]).added).toEqual([]);
});
