import { readFile } from 'node:fs/promises';
import { type Download, expect, type Page, test } from '@playwright/test';
import { SheetHand, textOf } from './hand';

const dialog = (page: Page) => page.getByRole('dialog', { name: 'Figure for a text' });

async function figure(page: Page, lesson: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: `Open ${lesson}` }).click();
  await new SheetHand(page).ready();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('figure for');
  await page.keyboard.press('Enter');
  await expect(dialog(page).getByRole('img')).toBeVisible();
}

async function saved(page: Page): Promise<Download> {
  const download = page.waitForEvent('download');
  await dialog(page).getByRole('button', { name: 'Save', exact: true }).click();
  return download;
}

const bytesOf = async (download: Download) => (await readFile((await download.path())!)).toString('base64');

/** The pixels of a PNG: its size, and the alpha and the colours that are found in it. */
function look(page: Page, png: string) {
  return page.evaluate(async (data) => {
    const image = new Image();
    image.src = `data:image/png;base64,${data}`;
    await image.decode();
    const canvas = new OffscreenCanvas(image.width, image.height);
    const g = canvas.getContext('2d')!;
    g.drawImage(image, 0, 0);
    const { data: pixels } = g.getImageData(0, 0, image.width, image.height);
    let coloured = 0;
    let inked = 0;
    for (let i = 0; i < pixels.length; i += 4) {
      const [red, green, blue, alpha] = [pixels[i]!, pixels[i + 1]!, pixels[i + 2]!, pixels[i + 3]!];
      if (alpha > 0 && Math.max(red, green, blue) - Math.min(red, green, blue) > 24) coloured++;
      if (alpha > 0 && red < 128) inked++;
    }
    return { width: image.width, height: image.height, coloured, inked, corner: pixels[3]! };
  }, png);
}

test('a drawing as a picture: at a scale, in colour or black, on white or on nothing', async ({ page }) => {
  await figure(page, 'Drive interlock');
  const first = await look(page, await bytesOf(await saved(page)));
  await expect(dialog(page).getByText(`${first.width} × ${first.height} pixels`)).toBeVisible();
  expect(first.coloured).toBeGreaterThan(100);
  expect(first.corner).toBe(255);
  await dialog(page).getByRole('combobox', { name: 'Scale' }).selectOption('4 ×');
  await dialog(page).getByRole('combobox', { name: 'Ink' }).selectOption('black');
  await dialog(page).getByRole('checkbox', { name: 'Transparent ground' }).check();
  await expect(dialog(page).getByText(`${2 * first.width} × ${2 * first.height} pixels`)).toBeVisible();
  const second = await look(page, await bytesOf(await saved(page)));
  expect(second.width).toBe(2 * first.width);
  expect(second.coloured).toBe(0);
  expect(second.corner).toBe(0);
  // The lines are there, at four times the pixels of the first.
  expect(second.inked).toBeGreaterThan(2 * first.inked);
});

test('the same figure as lines and as pixels looks the same, and as the drawing does', async ({ page }) => {
  await figure(page, 'Lamp chase');
  await dialog(page).getByRole('combobox', { name: 'Scale' }).selectOption('1 ×');
  const png = await bytesOf(await saved(page));
  await dialog(page).getByRole('radio', { name: /SVG/ }).check();
  const download = await saved(page);
  expect(download.suggestedFilename()).toMatch(/\.svg$/);
  const svg = await textOf(download);
  for (const name of ['Clock', 'Q0', 'L7']) expect(svg).toContain(`>${name}</text>`);
  // One upon the other on a page of their own: what differs is not black. Only letters do, as that page has other fonts.
  const both = await page.context().newPage();
  await both.setContent(
    `<body style="margin:0;background:#000">${svg.replace('<svg ', '<svg style="position:absolute;left:0;top:0" ')}
    <img style="position:absolute;left:0;top:0;mix-blend-mode:difference" src="data:image/png;base64,${png}">`,
  );
  const [, width, height] = /width="(\d+)" height="(\d+)"/.exec(svg)!;
  const clip = { x: 0, y: 0, width: Math.min(Number(width), 1280), height: Math.min(Number(height), 800) };
  const difference = (await both.screenshot({ clip })).toString('base64');
  const share = await both.evaluate(async (data) => {
    const image = new Image();
    image.src = `data:image/png;base64,${data}`;
    await image.decode();
    const g = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
    g.drawImage(image, 0, 0);
    const { data: all } = g.getImageData(0, 0, image.width, image.height);
    let far = 0;
    for (let i = 0; i < all.length; i += 4) if (Math.max(all[i]!, all[i + 1]!, all[i + 2]!) > 96) far++;
    return far / (all.length / 4);
  }, difference);

  expect(share).toBeLessThan(0.0035);
});

test('each open face is a figure: a table, formulas, a map, and LaTeX on the clipboard', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  for (const name of ['Formula', 'Map', 'Text']) {
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name, exact: true }).getByText(/Key/).first()).toBeVisible();
  }
  await page.getByRole('button', { name: 'Drive interlock' }).click();
  await page.getByRole('menuitem', { name: 'Figure for a text' }).click();
  await dialog(page).getByRole('radio', { name: /LaTeX/ }).check();
  const copied = async (name: string) => {
    await dialog(page).getByRole('combobox', { name: 'Face' }).selectOption(name);
    await expect(dialog(page).getByRole('img', { name: new RegExp(`: ${name}$`) })).toBeVisible();
    await dialog(page).getByRole('button', { name: 'Copy' }).click();
    await expect(dialog(page).getByText('The LaTeX is on the clipboard.')).toBeVisible();
    return page.evaluate(() => navigator.clipboard.readText());
  };
  const table = await copied('Truth table');
  expect(table).toMatch(/^%.*\n\\begin\{tikzpicture\}/);
  expect(table.match(/\{[01]\};/g)!.length).toBeGreaterThanOrEqual(8 * 5);
  for (const name of ['Key', 'Bars', 'Clear', 'Drive', 'Warn']) expect(table).toContain(`{${name}};`);
  const formula = await copied('Formula');
  expect(formula).toContain('{Drive};');
  // Buttons are no part of a formula.
  expect(formula).not.toContain('Change');
  const map = await copied('Map');
  // Lines of the text that are buttons, as they lead to their parts, are lines all the same.
  expect(await copied('Text')).toContain('input');
  expect(map).toContain('{00};');
  expect(map.match(/\.\. controls/g)!.length).toBeGreaterThan(3);
});

test('in the dark a figure is that of the light theme', async ({ page }) => {
  await figure(page, 'Drive interlock');
  await dialog(page).getByRole('combobox', { name: 'Face' }).selectOption('Truth table');
  await dialog(page).getByRole('radio', { name: /SVG/ }).check();
  const light = await textOf(await saved(page));
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /dark/i }).click();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('figure for');
  await page.keyboard.press('Enter');
  await dialog(page).getByRole('combobox', { name: 'Face' }).selectOption('Truth table');
  await dialog(page).getByRole('radio', { name: /SVG/ }).check();
  expect(await textOf(await saved(page))).toBe(light);
});
