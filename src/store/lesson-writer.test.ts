import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { apply, type Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import { writeLesson } from '@/core/formats/write-lesson';
import { interlock } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { database } from './database';
import type { LessonStore } from './lesson-store';
import { LessonWriter, type Saving } from './lesson-writer';
import { openKept, openLesson, saveSnapshot } from './lessons';
import { FailingStore, storeOf } from './testing/failing-store';

const begun = interlock().lesson;

let store: LessonStore;

async function beginAnew(): Promise<void> {
  await Promise.all(database.tables.map((t) => t.clear()));
  await saveSnapshot(begun);
  store = await storeOf(begun.id);
}
beforeEach(beginAnew);

/** A lesson that is edited and kept through a store that refuses some writes. */
class Desk extends FailingStore {
  lesson: Lesson = begun;
  readonly told: Saving[] = [];
  /** The lesson as a text after each edit, and how many edits were acknowledged. */
  readonly texts = [writeLesson(begun)];
  acknowledged = 0;
  readonly writer = new LessonWriter(
    () => this.lesson,
    (saving) => {
      this.told.push(saving);
      if (saving.is === 'saved') this.acknowledged = this.texts.length - 1;
    },
    this.surroundings,
  );

  edit(edit: Edit): void {
    this.lesson = expectDone(apply(this.lesson, edit));
    this.texts.push(writeLesson(this.lesson));
    this.writer.edit(edit);
  }
}

const label = (text: string): Edit => ({
  type: 'changePart',
  sheet: 'sheet1',
  id: 'and1',
  change: { label: text },
});
const add = (n: number): Edit => ({
  type: 'addPart',
  sheet: 'sheet1',
  part: { ...begun.sheets[0]!.parts.get('and1')!, id: `and${n}`, at: { x: n, y: 90 } },
});
const keptText = async () => writeLesson(expectDone((await openLesson(begun.id))!));

test('edits are kept in order, those that come during a write together', async () => {
  const desk = new Desk(store, () => false);
  desk.edit(label('one'));
  desk.edit(label('two'));
  desk.edit(add(9));
  await desk.rest();
  expect(desk.told.map((s) => s.is)).toEqual(['saving', 'saving', 'saving', 'saved']);
  expect(await database.journal.count()).toBe(3);
  expect(await keptText()).toBe(desk.texts.at(-1));
});

test('after a hundred edits a snapshot takes the place of the journal, at the next rest', async () => {
  const desk = new Desk(store, () => false);
  for (let i = 0; i < 120; i++) {
    desk.edit(label(`${i}`));
    await desk.rest();
  }
  expect(await database.journal.count()).toBe(120);
  await desk.endPauses();
  expect(await database.journal.count()).toBe(0);
  expect(await keptText()).toBe(desk.texts.at(-1));
});

test('edits without any rest are in a snapshot after a thousand', async () => {
  const desk = new Desk(store, () => false);
  for (let i = 0; i < 1010; i++) {
    desk.edit(label(`${i}`));
    if (i % 10 === 9) await desk.rest();
  }
  expect(await database.journal.count()).toBe(10);
  expect(await keptText()).toBe(desk.texts.at(-1));
});

test('after one refused write nothing is lost: the lesson is written whole until that succeeds', async () => {
  let refused = 0;
  const desk = new Desk(store, () => refused++ < 2);
  desk.edit(add(9));
  await desk.rest();
  expect(desk.told.at(-1)).toMatchObject({ is: 'failed', problem: { code: 'disk-full' } });
  // Nothing goes into the journal behind the gap.
  desk.edit({ ...label('behind the gap'), id: 'and9' } as Edit);
  await desk.rest();
  expect(await database.journal.count()).toBe(0);
  expect(desk.writer.isBehind).toBe(true);
  await desk.endPauses();
  await desk.endPauses();
  expect(desk.told.at(-1)).toEqual({ is: 'saved' });
  expect(desk.writer.isBehind).toBe(false);
  expect(await keptText()).toBe(desk.texts.at(-1));
});

test('a person who tries again does not wait for the next attempt', async () => {
  let isFull = true;
  const desk = new Desk(store, () => isFull);
  desk.edit(add(9));
  await desk.rest();
  isFull = false;
  desk.writer.retry();
  await desk.rest();
  expect(await keptText()).toBe(desk.texts.at(-1));
});

test('2,000 random edits to a store that refuses at random: none that was acknowledged is lost', async () => {
  let edits = 0;
  await fc.assert(
    fc
      .asyncProperty(
        fc.array(
          fc.record({
            refuse: fc.boolean(),
            rest: fc.boolean(),
            wait: fc.boolean(),
            crash: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
          }),
          { minLength: 50, maxLength: 60 },
        ),
        async (steps) => {
          let at = 0;
          const desk = new Desk(store, () => steps[at]!.refuse);
          for (const [i, step] of steps.entries()) {
            at = i;
            desk.edit(i % 3 === 0 ? add(100 + i) : label(`${i}`));
            edits++;
            if (step.rest) await desk.rest();
            if (step.wait) await desk.endPauses();
            if (!step.crash) continue;
            // A page that opens after a crash reads the present content.
            const found = desk.texts.indexOf(await keptText());
            expect(found).toBeGreaterThanOrEqual(desk.acknowledged);
          }
          at = steps.findIndex((s) => !s.refuse);
          if (at === -1) return;
          await desk.rest();
          await desk.endPauses();
          expect(await keptText()).toBe(desk.texts.at(-1));
        },
      )
      .beforeEach(beginAnew),
    { numRuns: 40 },
  );
  expect(edits).toBeGreaterThanOrEqual(2000);
}, 120_000);

describe('a journal with an entry that no longer applies', () => {
  const strange: Edit = { type: 'removePart', sheet: 'sheet1', id: 'gone' };

  test('gives all others, and tells which did not apply', async () => {
    await store.journalEdits([label('one'), strange, add(9)]);
    const { lesson, aside } = expectDone((await openKept(begun.id))!);
    expect(lesson.sheets[0]!.parts.get('and1')!.label).toBe('one');
    expect(lesson.sheets[0]!.parts.has('and9')).toBe(true);
    expect(aside.map((a) => [a.edit, a.reason])).toEqual([[strange, 'there is no part gone on this sheet']]);
  });

  test('is told even where an entry is no edit at all', async () => {
    await store.journalEdits([label('one'), null as never, { type: 'addPart' } as never, add(9)]);
    const { lesson, aside } = expectDone((await openKept(begun.id))!);
    expect(lesson.sheets[0]!.parts.has('and9')).toBe(true);
    expect(aside.map((a) => a.reason)).toEqual([
      expect.stringMatching(/^it is damaged/),
      expect.stringMatching(/no sheet/),
    ]);
  });
});
