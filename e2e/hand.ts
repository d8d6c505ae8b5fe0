import { readFileSync } from 'node:fs';
import { type Download, expect, type Locator, type Page } from '@playwright/test';

/** Pixels of a grid step, and where a fresh sheet's corner lies, as the drawing begins. */
const STEP = 14;
const CORNER = { x: -4, y: -4 };

/** A hand on an open sheet that has not been moved or zoomed: points are in grid steps. */
export class SheetHand {
  readonly sheet: Locator;

  constructor(readonly page: Page) {
    this.sheet = page.getByRole('application');
  }

  async ready(): Promise<void> {
    await this.sheet.waitFor();
    await this.page.evaluate(() => document.fonts.ready);
  }

  /** Waits until the mark in the bar says that all that was done is saved. */
  async saved(): Promise<void> {
    await expect(this.page.getByRole('img', { name: 'Saved' })).toBeVisible();
  }

  /** Waits until the last action has been painted. */
  async painted(): Promise<void> {
    await this.page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
    );
  }

  async pixel(x: number, y: number): Promise<[number, number]> {
    const box = (await this.sheet.boundingBox())!;
    return [box.x + (x - CORNER.x) * STEP, box.y + (y - CORNER.y) * STEP];
  }

  async point(x: number, y: number): Promise<void> {
    await this.page.mouse.move(...(await this.pixel(x, y)));
  }

  async click(x: number, y: number, options: { modifiers?: string[] } = {}): Promise<void> {
    for (const key of options.modifiers ?? []) await this.page.keyboard.down(key);
    await this.page.mouse.click(...(await this.pixel(x, y)));
    for (const key of options.modifiers ?? []) await this.page.keyboard.up(key);
  }

  async rightClick(x: number, y: number): Promise<void> {
    await this.page.mouse.click(...(await this.pixel(x, y)), { button: 'right' });
  }

  async drag(from: [number, number], to: [number, number]): Promise<void> {
    await this.point(...from);
    await this.page.mouse.down();
    const [x, y] = await this.pixel(...to);
    await this.page.mouse.move(x, y, { steps: 5 });
    await this.page.mouse.up();
  }

  /** Types a part's name with the pointer at a place. */
  async type(x: number, y: number, text: string): Promise<void> {
    await this.point(x, y);
    const line = this.page.getByRole('combobox', { name: 'Name of a part' });
    await this.page.keyboard.type(text);
    // The line is fetched at its first use: without this, its not being there yet would look like its end.
    await expect(line).toBeVisible();
    await this.page.keyboard.press('Enter');
    await expect(line).toHaveCount(0);
  }

  /** The spoken descriptions of the sheet's parts, one a line. */
  async parts(): Promise<string[]> {
    return this.page
      .getByRole('listbox', { name: /^Parts on/ })
      .getByRole('option')
      .allInnerTexts();
  }
}

/** Goes to something with the Tab key alone. */
export async function tabTo(page: Page, what: Locator): Promise<void> {
  const isThere = () => what.evaluate((e) => e === document.activeElement);
  for (let i = 0; i < 200; i++) {
    if (await isThere()) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab does not lead to ${what}`);
}

/** A new lesson from the shelf, and a hand on its sheet. */
export async function emptySheet(page: Page): Promise<SheetHand> {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  return hand;
}

export async function textOf(download: Download): Promise<string> {
  return readFileSync((await download.path())!, 'utf8');
}

/** A file as a drop or a file field takes it. */
export function asFile(
  name: string,
  text: string | Buffer,
): { name: string; mimeType: string; buffer: Buffer } {
  return { name, mimeType: 'application/json', buffer: Buffer.from(text) };
}

/** Drops files onto an element as the browser would. */
export async function drop(
  page: Page,
  onto: Locator,
  files: { name: string; text: string }[],
): Promise<void> {
  const data = await page.evaluateHandle((given) => {
    const transfer = new DataTransfer();
    for (const { name, text } of given)
      transfer.items.add(new File([text], name, { type: 'application/json' }));
    return transfer;
  }, files);
  for (const type of ['dragenter', 'dragover', 'drop'])
    await onto.dispatchEvent(type, { dataTransfer: data });
}

export async function handIn(page: Page, name: string): Promise<string> {
  await page.getByRole('button', { name: 'Hand in', exact: true }).click();
  await page.getByLabel('Your name').fill(name);
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the hand-in file' }).click();
  const text = await textOf(await saving);
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  return text;
}

/** The text that is on the clipboard: pasted into another page. */
export async function pasted(page: Page): Promise<string> {
  const other = await page.context().newPage();
  await other.setContent('<textarea autofocus aria-label="Paste here"></textarea>');
  await other.getByLabel('Paste here').click();
  await other.keyboard.press('Control+v');
  const text = await other.getByLabel('Paste here').inputValue();
  await other.close();
  return text;
}
