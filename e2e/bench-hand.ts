import { expect, type Locator, type Page } from '@playwright/test';
import { face } from './face-hand';

/*
 * Hands on the wiring board. Holes are found as a person finds them: by the numbers of columns and the letters of rows.
 */

export const bench = (page: Page) => page.getByRole('region', { name: 'Bench' });
export const board = (page: Page) => page.getByRole('group', { name: 'Wiring board' });
export const said = (page: Page) => bench(page).getByRole('status');

interface Place {
  readonly x: number;
  readonly y: number;
}

const middle = async (of: Locator): Promise<Place> => {
  const box = (await of.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

/** Opens a demo lesson with its board alone beside the drawing, the packages of its drawing placed. */
export async function onBench(page: Page, lesson: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: `Open ${lesson}` }).click();
  await page.getByRole('application').waitFor();
  await face(page, 'Bench');
}

/** Presses a button of the bench, behind its menu where the bar is narrow. */
export async function press(page: Page, name: string | RegExp): Promise<void> {
  const more = bench(page).getByRole('button', { name: 'More for the bench' });
  const button = bench(page).getByRole('button', { name, exact: typeof name === 'string' });
  if (!(await button.isVisible()) && (await more.isVisible())) await more.click();
  await button.click();
}

/** The place of a hole (`a12`). */
export async function hole(page: Page, name: string): Promise<Place> {
  const [, row, number] = /^([a-j])(\d+)$/.exec(name)!;
  const texts = board(page).locator('text');
  const [one, thirty] = [
    await middle(texts.getByText('1', { exact: true }).first()),
    await middle(texts.getByText('30', { exact: true }).first()),
  ];
  const line = await middle(texts.getByText(row!, { exact: true }).first());
  return { x: one.x + ((thirty.x - one.x) * (Number(number) - 1)) / 29, y: line.y };
}

const rings = (page: Page) => board(page).locator('[data-next] circle');

/** The two rings of the wire that comes next, once they are seen: the plan may still be made. */
async function nextRings(page: Page): Promise<Locator[]> {
  await expect(rings(page)).toHaveCount(2);
  return rings(page).all();
}

/** Lays the next wire by pressing its two holes. @param off columns by which the second hole is missed. */
export async function layNext(page: Page, off = 0): Promise<void> {
  const pitch = off === 0 ? 0 : (await hole(page, 'a2')).x - (await hole(page, 'a1')).x;
  for (const [i, at] of (await nextRings(page)).entries()) {
    await at.scrollIntoViewIfNeeded();
    const { x, y } = await middle(at);
    await page.mouse.click(x + (i === 1 ? off * pitch : 0), y);
  }
}

/** Drags the wire that comes next from one ring to the other. */
export async function dragNext(page: Page): Promise<void> {
  const [first, second] = await nextRings(page);
  const [from, to] = [await middle(first!), await middle(second!)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
  await page.mouse.move(to.x, to.y);
  await page.mouse.up();
}

/** Lays every wire that comes next, one after the other, until all are laid. @returns how many. */
export async function layAll(page: Page): Promise<number> {
  let count = 0;
  for (; (await rings(page).count()) > 0; count++) {
    const before = await said(page).textContent();
    await layNext(page);
    await expect(said(page)).not.toHaveText(before!);
  }
  return count;
}

/** Types lines for the board, each of which is taken. */
export async function typeForBoard(page: Page, ...lines: readonly string[]): Promise<void> {
  const line = bench(page).getByLabel('Type for the board');
  for (const text of lines) {
    await line.click();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    await expect(line).toHaveValue('');
  }
}
