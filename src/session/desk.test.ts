import 'fake-indexeddb/auto';
import { interlock } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { database } from '@/store/database';
import { LEASE_MS, leaseOf, takeLease } from '@/store/lease';
import { openLesson, saveSnapshot } from '@/store/lessons';
import { deleteLesson } from '@/store/shelf';
import { type OpenSession, openSession } from './open-session';

const { lesson } = interlock();
const tabs: OpenSession[] = [];

/** The features of a page that Node lacks. */
const page = globalThis as unknown as { document: { visibilityState: string } };

beforeEach(async () => {
  page.document = { visibilityState: 'visible' };
  await Promise.all(database.tables.map((t) => t.clear()));
  await saveSnapshot(lesson);
});
afterEach(() => {
  for (const tab of tabs.splice(0)) tab.close();
});

async function openTab(): Promise<OpenSession> {
  const tab = expectDone((await openSession(lesson.id))!);
  tabs.push(tab);
  return tab;
}
const label = (tab: OpenSession, text: string) =>
  tab.session.edit('label', { type: 'changePart', sheet: 'sheet1', id: 'and1', change: { label: text } });
const shown = ({ session }: OpenSession) => session.sheet.parts.get('and1')!.label;
const kept = async () => expectDone((await openLesson(lesson.id))!).sheets[0]!.parts.get('and1')!.label;

/** Resolves when something is so. */
async function until(isSo: () => boolean | Promise<boolean>): Promise<void> {
  while (!(await isSo())) await new Promise((resolve) => setTimeout(resolve, 5));
}

test('the first tab edits, the second follows it live', async () => {
  const [first, second] = [await openTab(), await openTab()];
  expect([first.place.getState(), second.place.getState()]).toEqual(['here', 'elsewhere']);
  expect(second.session.state.readOnly).toBe(true);
  expect(label(second, 'refused').ok).toBe(false);
  label(first, 'Gate');
  await until(() => shown(second) === 'Gate');
  expect(second.session.state.lesson).toEqual(first.session.state.lesson);
});

test('switches of a tab that follows stay as they were put', async () => {
  const [first, second] = [await openTab(), await openTab()];
  second.session.goToRow(1);
  const { on } = second.session.state;
  expect(on.size).toBe(1);
  label(first, 'Gate');
  await until(() => shown(second) === 'Gate');
  expect(second.session.state.on).toEqual(on);
});

test('a tab that hands over writes what waits first, and follows from then on', async () => {
  const [first, second] = [await openTab(), await openTab()];
  label(first, 'written at the last moment');
  await second.takeOver();
  expect(shown(second)).toBe('written at the last moment');
  expect([first.place.getState(), second.place.getState()]).toEqual(['elsewhere', 'here']);
  expect(first.session.state.readOnly).toBe(true);
  label(second, 'by the second');
  await until(() => shown(first) === 'by the second');
  await second.session.saved;
  expect(await kept()).toBe('by the second');
});

test('pressing twice takes over once, and no edit in between is fenced out', async () => {
  const [, second] = [await openTab(), await openTab()];
  await Promise.all([second.takeOver(), second.takeOver(), second.takeOver()]);
  expect((await leaseOf(lesson.id))!.token).toBe(2);
  label(second, 'kept');
  await second.session.saved;
  expect([second.place.getState(), await kept()]).toEqual(['here', 'kept']);
});

test('a lesson that was closed can be edited by the next tab at once', async () => {
  const first = await openTab();
  label(first, 'one');
  await first.session.saved;
  first.close();
  const second = await openTab();
  expect(second.place.getState()).toBe('here');
  expect(shown(second)).toBe('one');
});

test('a tab that ended without a word is overtaken when its lease has run out, and can write no more', async () => {
  const dead = (await takeLease(lesson.id, 'dead', 0, Date.now() - LEASE_MS + 300))!;
  const tab = await openTab();
  expect(tab.place.getState()).toBe('here');
  expect((await leaseOf(lesson.id))!.token).toBe(dead + 1);
});

test('a tab whose lease was taken without asking keeps what it shows until the person decides', async () => {
  const tab = await openTab();
  await takeLease(lesson.id, 'thief', (await leaseOf(lesson.id))!.token, Date.now());
  label(tab, 'not kept');
  await until(() => tab.place.getState() === 'overtaken');
  expect(tab.isBehind()).toBe(true);
  expect(tab.session.state.readOnly).toBe(true);
  expect(shown(tab)).toBe('not kept');
  expect(await kept()).toBe('');
});

describe('a lesson that is deleted in another tab', () => {
  test('is told, and can be brought back with all that was done since', async () => {
    const tab = await openTab();
    await deleteLesson(lesson.id);
    await until(() => tab.place.getState() === 'deleted');
    label(tab, 'after it was deleted');
    await until(() => tab.session.state.saving.is === 'failed');
    await tab.bringBack();
    await tab.session.saved;
    expect(tab.place.getState()).toBe('here');
    expect(await kept()).toBe('after it was deleted');
    label(tab, 'goes on');
    await tab.session.saved;
    expect(await kept()).toBe('goes on');
  });

  test('goes on by itself where the other tab puts it back', async () => {
    const tab = await openTab();
    const putBack = await deleteLesson(lesson.id);
    await until(() => tab.place.getState() === 'deleted');
    label(tab, 'meanwhile');
    await putBack();
    await until(() => tab.place.getState() === 'here');
    await tab.session.saved;
    expect(await kept()).toBe('meanwhile');
  });

  test('can be brought back by a tab that only looked on', async () => {
    const [first, second] = [await openTab(), await openTab()];
    await deleteLesson(lesson.id);
    await until(() => second.place.getState() === 'deleted');
    await second.bringBack();
    expect(second.place.getState()).toBe('here');
    expect(second.session.state.readOnly).toBe(false);
    await until(() => first.place.getState() === 'elsewhere');
  });
});
