import 'fake-indexeddb/auto';
import type { Lesson } from '@/core/circuit/lesson';
import { writeLesson } from '@/core/formats/write-lesson';
import { updateDerived } from '@/core/synthesis/update-derived';
import { dice } from '@/core/testing/dice';
import { interlock } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { load } from '@/loading/load';
import { database } from '@/store/database';
import { LessonWriter } from '@/store/lesson-writer';
import { openLesson, saveSnapshot } from '@/store/lessons';
import { FailingStore, storeOf } from '@/store/testing/failing-store';
import { Persistence } from './persistence';
import { Session } from './session';
import { randomGesture } from './testing/random-gesture';

/** The features of a browser that fetching needs and Node lacks. */
const page = globalThis as unknown as {
  document: { scripts: { src: string }[] };
  addEventListener: () => void;
  removeEventListener: () => void;
};

beforeEach(async () => {
  page.document = { scripts: [] };
  page.addEventListener = () => {};
  page.removeEventListener = () => {};
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] });
  jest.spyOn(globalThis, 'fetch').mockRejectedValue(new Error('no network'));
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
});

const keptText = async (lesson: Lesson) => writeLesson(expectDone((await openLesson(lesson.id))!));
const isRefused = (answer: unknown) =>
  typeof answer === 'object' && answer !== null && 'ok' in answer && answer.ok === false;

/** Counted over all runs, so that a run in which nothing happens cannot pass. */
const seen = { edits: 0, refused: 0, failedWrites: 0, failedFetches: 0, crashes: 0 };

/** Edits a lesson until 200 edits were made, while writes and fetches fail at random; then all goes well again. */
async function editAmongFaults(seed: number): Promise<void> {
  const roll = dice(seed);
  const begun = interlock().lesson;
  await Promise.all(database.tables.map((table) => table.clear()));
  await saveSnapshot(begun);
  let isCalm = false;
  const fails = (share: number) => !isCalm && roll() < share;
  const store = new FailingStore(await storeOf(begun.id), () => {
    const refuses = fails(0.4);
    if (refuses) seen.failedWrites++;
    return refuses;
  });
  const session = new Session(begun);
  const text = () => writeLesson(session.state.lesson);
  /** The lesson after each edit. */
  const texts = [text()];
  /** The one that was there when the session last said that all is saved. */
  let acknowledged = 0;
  const kept = new Persistence(
    session,
    (tell) =>
      new LessonWriter(
        () => session.state.lesson,
        (saving) => {
          if (saving.is === 'saved') acknowledged = texts.length - 1;
          tell(saving);
        },
        store.surroundings,
      ),
    async () => {
      if (fails(0.5)) throw new Error('full');
    },
  );
  session.setSink({
    edit: (edit) => {
      texts.push(text());
      kept.edit(edit);
    },
    moment: (state) => kept.moment(state),
  });
  const fetched = load('what keeps blocks and notes up to date', async () => {
    if (fails(0.95)) {
      seen.failedFetches++;
      throw new Error('chunk');
    }
    return updateDerived;
  }).then((it) => session.setUpdateDerived(it));
  while (texts.length <= 200) {
    const before = text();
    const answer = randomGesture(session, roll, 12);
    if (isRefused(answer)) {
      expect(text()).toBe(before);
      seen.refused++;
    }
    if (roll() < 0.5) await store.rest();
    if (roll() < 0.3) await store.endPauses();
    if (roll() < 0.2) await jest.advanceTimersByTimeAsync(2000);
    if (roll() < 0.9) continue;
    // A page that opens after a crash has at least everything that was said to be saved.
    seen.crashes++;
    const found = texts.lastIndexOf(await keptText(begun));
    expect(found).toBeGreaterThanOrEqual(acknowledged);
  }
  seen.edits += texts.length - 1;
  isCalm = true;
  await jest.advanceTimersByTimeAsync(20_000);
  await fetched;
  await store.rest();
  await store.endPauses();
  await jest.advanceTimersByTimeAsync(1000);
  expect(session.state.saving).toEqual({ is: 'saved' });
  expect(await keptText(begun)).toBe(text());
}

/** Runs of two hundred edits each. */
const RUNS = Number(process.env.FAULT_RUNS ?? 5);

test(`${RUNS * 200} random edits among failing writes and fetches: none that was acknowledged is lost`, async () => {
  for (let run = 0; run < RUNS; run++) await editAmongFaults(4000 + run);
  expect(seen.edits).toBeGreaterThanOrEqual(RUNS * 200);
  for (const count of Object.values(seen)) expect(count).toBeGreaterThan(2 * RUNS);
}, 1_200_000);
