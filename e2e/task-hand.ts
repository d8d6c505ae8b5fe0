import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Locator, type Page, test } from '@playwright/test';
import { asFile, SheetHand, textOf } from './hand';

/**
 * Hands the sheet of a demo lesson, or one that is drawn for it, out as a task, in a browser of the teacher's own, and opens it in this one as a student: the
 * file, and the task pane.
 * @param isOwn whether teacher and student share this browser, so that sealed answers can be marked here.
 */
export async function handedOut(
  page: Page,
  lesson: string | ((page: Page) => Promise<void>),
  kind: string,
  setUp: (dialog: Locator) => Promise<void> = async () => {},
  isOwn = false,
): Promise<{ file: string; task: Locator; hand: SheetHand }> {
  const { baseURL } = test.info().project.use;
  const theirs = isOwn
    ? null
    : await page
        .context()
        .browser()!
        .newContext({ serviceWorkers: 'block', ...(baseURL ? { baseURL } : {}) });
  const teacher = theirs ? await theirs.newPage() : page;
  if (typeof lesson === 'string') {
    await teacher.goto('/');
    await teacher.locator(`a[href="/lesson?id=demo-${lesson}"]`).click();
    await new SheetHand(teacher).ready();
  } else await lesson(teacher);
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const dialog = teacher.getByRole('dialog');
  await dialog.getByLabel(kind, { exact: true }).check();
  await setUp(dialog);
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  const link = await dialog.getByLabel('Link to the exercise').inputValue();
  const saving = teacher.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the exercise file' }).click();
  const file = await textOf(await saving);
  if (theirs) await theirs.close();
  else await page.goto('about:blank');
  await page.goto(link);
  const hand = new SheetHand(page);
  await hand.ready();
  return { file, task: page.getByRole('region', { name: 'Task' }), hand };
}

/** Presses “Check” of the open task. */
export const check = (task: Locator) => task.getByRole('button', { name: 'Check' }).click();

/**
 * Marks two hand-ins on the page and by the command, which agree: Ada's is right, and Ben's is not.
 * @param said what the command prints about Ada's hand-in.
 */
export async function marked(
  page: Page,
  exercise: string,
  right: string,
  wrong: string,
  said = /^Ada Sample: solved/m,
): Promise<void> {
  await page.goto('/marking');
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([
      asFile('t.exercise.json', exercise),
      asFile('a.handin.json', right),
      asFile('b.handin.json', wrong),
    ]);
  await expect(page.getByRole('row', { name: /Ada Sample/ })).toContainText('✓');
  await expect(page.getByRole('row', { name: /Ben Sample/ })).toContainText('✗');
  const folder = mkdtempSync(join(tmpdir(), 'tasks-'));
  const kept = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  const files = [
    kept('t.exercise.json', exercise),
    kept('a.handin.json', right),
    kept('b.handin.json', wrong),
  ];
  const { stdout, status } = spawnSync('./manege', ['mark', ...files], { encoding: 'utf8' });
  expect(status).toBe(1);
  expect(stdout).toMatch(said);
  expect(stdout).toMatch(/^Ben Sample: (not solved|0 of \d+ tasks solved)/m);
}
