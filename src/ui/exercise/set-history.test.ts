import fc from 'fast-check';
import { buildTask, exerciseOf } from '@/core/testing/exercises';
import { begun, changed, redone, undone } from './set-history';

const set = exerciseOf([
  buildTask({ kind: 'table' }, []),
  buildTask({ kind: 'table' }, [], { id: 'task2', title: 'Two' }),
]);
const titled = (title: string) => ({ ...set, title });
const worded = (words: string) => ({ ...set, tasks: set.tasks.with(1, { ...set.tasks[1]!, words }) });

test('what is typed into one text is one step; another text, or a choice, is the next', () => {
  let history = begun(set);
  for (const words of ['a', 'ab', 'abc']) history = changed(history, worded(words));
  expect(history.past).toEqual([set]);
  history = changed(history, { ...history.now, title: 'New' });
  history = changed(history, { ...history.now, title: 'Newer' });
  history = changed(history, { ...history.now, order: 'in order' });
  expect(history.past).toHaveLength(3);
  expect(undone(history).now).toMatchObject({ title: 'Newer', order: 'free' });
  expect(undone(undone(undone(history))).now).toEqual(set);
  // After undoing, typing begins a step of its own.
  const again = changed(undone(undone(history)), titled('Other'));
  expect(again.past.length).toBe(2);
  expect(again.future).toEqual([]);
});

test('removing a task and moving one are steps, and points are no text', () => {
  const [one, two] = set.tasks;
  let history = changed(begun(set), { ...set, tasks: [two!, one!] });
  history = changed(history, { ...set, tasks: [two!] });
  history = changed(history, { ...set, tasks: [{ ...two!, points: 2 }] });
  history = changed(history, { ...set, tasks: [{ ...two!, points: 3 }] });
  expect(history.past).toHaveLength(4);
  expect(undone(undone(undone(undone(history)))).now.tasks).toEqual([one, two]);
});

test('undo and redo lead back to where they began, and do nothing at the ends', () => {
  fc.assert(
    fc.property(fc.array(fc.string(), { minLength: 1, maxLength: 12 }), (titles) => {
      let history = begun(set);
      for (const [i, title] of titles.entries())
        history = changed(history, i % 2 ? titled(title) : worded(title));
      const last = history.now;
      const steps = history.past.length;
      for (let i = 0; i < steps; i++) history = undone(history);
      expect(history.now).toEqual(set);
      expect(undone(history)).toBe(history);
      for (let i = 0; i < steps; i++) history = redone(history);
      expect(history.now).toEqual(last);
      expect(redone(history)).toBe(history);
    }),
  );
});
