import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { lessonOf, randomSheet } from '../../testing/random-circuit';
import { readLesson } from '../lesson-file';
import { lessonToFile } from '../write-lesson';
import { type LessonLink, lessonFromFragment, lessonToFragment } from './lesson-link';

const demo = (name: string) => {
  const read = readLesson(readFileSync(`demo/${name}.manege.json`, 'utf8'));
  if (!read.ok) throw new Error(read.problem.message);
  return read.value;
};

const view = (sheet: string): LessonLink['view'] => ({ sheet, faces: ['table'], on: ['switch1'] });

function passed(link: LessonLink): LessonLink {
  const read = lessonFromFragment(lessonToFragment(link));
  if (!read.ok) throw new Error(read.problem.message);
  return read.value;
}

test('a link holds any lesson, and what is shown of it', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 12 }), (sheet) => {
      const link = { lesson: lessonOf(sheet), view: view(sheet.id) };
      const back = passed(link);
      expect(lessonToFile(back.lesson)).toEqual(lessonToFile(link.lesson));
      expect(back.view).toEqual(link.view);
    }),
  );
});

test('the moment comes along, its replay and what storage holds', () => {
  const lesson = demo('ride-timer');
  const moment = { at: 25_000, begun: ['switch1'], replay: [[10, 'switch1', 0]] as const };
  const link = { lesson, view: { ...view('sheet1'), moment } };
  expect(passed(link).view.moment).toEqual(moment);
  const held = { at: 7, held: { 'R0.Q': '1', 'R1.Q': 'X' } } as const;
  expect(passed({ lesson, view: { ...view('sheet1'), moment: held } }).view.moment).toEqual(held);
});

test('the interlock fits into a link that mail and chat leave whole', () => {
  expect(lessonToFragment({ lesson: demo('drive-interlock'), view: view('sheet1') }).length).toBeLessThan(
    700,
  );
});

test('a link that is cut short, damaged or made by a later version says so', () => {
  const whole = lessonToFragment({ lesson: demo('drive-interlock'), view: view('sheet1') });
  const problem = (fragment: string) => {
    const read = lessonFromFragment(fragment);
    return read.ok ? '' : read.problem.message;
  };
  for (const cut of [whole.slice(0, -40), whole.slice(0, 30), `1.${'A'.repeat(400)}`, '1.', '%%%'])
    expect(problem(cut)).toMatch(/damaged or was cut short: ask for it again/);
  expect(problem(`2.${whole.slice(2)}`)).toMatch(/newer version of Manege/);
});

test('whatever stands in an address is read or refused, and never an error', () => {
  const whole = lessonToFragment({ lesson: demo('drive-interlock'), view: view('sheet1') });
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 200 }), fc.nat(600), (noise, at) => {
      for (const text of [noise, `1.${noise}`, whole.slice(0, at) + noise + whole.slice(at + noise.length)])
        expect(typeof lessonFromFragment(text).ok).toBe('boolean');
    }),
  );
});
