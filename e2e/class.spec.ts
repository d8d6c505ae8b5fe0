import { expect, type Page, test } from '@playwright/test';
import { exerciseFiles, sampleClass } from '../src/core/testing/sample-class';
import { Counted } from './counted';
import { asFile, SheetHand, textOf } from './hand';

/** A class of which it is known who did what. */
const planted = sampleClass(130, 3);
const [six] = exerciseFiles(planted);

const rows = (page: Page) => page.getByRole('row', { name: /Sample/ });
const view = (page: Page, name: string) =>
  page.getByRole('group', { name: 'What is shown of the class' }).getByRole('button', { name });

async function take(page: Page, files: readonly { readonly name: string; readonly text: string }[]) {
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([six!, ...files].map(({ name, text }) => asFile(name, text)));
}

test('sixty hand-ins, twenty-four of them wrong: all looked at, commented by their mistakes, saved as CSV', async ({
  page,
}) => {
  const copies = new Set(planted.copies.flat());
  const names = planted.six
    .map(({ name }) => name)
    .filter((name) => !planted.swinging.has(name) && !copies.has(name));
  const wrong = names.filter((name) => planted.mistakes.has(name)).slice(0, 24);
  const right = names.filter((name) => !planted.mistakes.has(name));
  const spare = planted.six.map(({ name }) => name).filter((name) => !planted.mistakes.has(name));
  const taken = new Set([...wrong, ...[...new Set([...right, ...spare])].slice(0, 60 - wrong.length)]);
  await page.goto('/marking');
  const fileOf = (name: string) =>
    planted.files.find((file) => file.name === `Turnstiles-${name.replaceAll(' ', '-')}.handin.json`)!;
  await take(page, [...taken].map(fileOf));
  await expect(page.getByText('60 hand-ins taken in.')).toBeVisible();
  const wrongOnes = page.getByRole('button', { name: /^Wrong \d+$/ });
  const countOf = async () => Number((await wrongOnes.textContent())!.replace(/\D/g, ''));
  await expect.poll(countOf).toBeGreaterThanOrEqual(wrong.length);
  const count = await countOf();
  const me = new Counted(page, new SheetHand(page));
  await me.click(wrongOnes);
  await me.choose(page.getByLabel('by'), 'mistake');
  await me.click(rows(page).first().getByRole('button', { name: 'Open' }));
  const given = page.getByRole('region', { name: 'Points and remarks' });
  const name = page.locator('bdi', { hasText: 'Sample' });
  const seen = new Set<string>();
  let remarks = 0;
  for (let i = 0; i < count; i++) {
    await expect(given).toBeVisible();
    seen.add((await name.textContent())!);
    // The mistakes stand together: what is said of the first of them is said of all.
    if ((await given.getByRole('list', { name: 'Remarks' }).count()) === 0) {
      // Every other one in words of one's own; else what is offered.
      if (remarks % 2 === 0) {
        await me.key('r');
        await me.keys('not as asked, look again');
        await me.key('Control+Enter');
      } else await me.key('a');
      await expect(given.getByRole('list', { name: 'Remarks' })).toBeVisible();
      remarks++;
    }
    if (i < count - 1) {
      const before = (await name.textContent())!;
      await me.key('n');
      await expect(name).not.toHaveText(before);
    }
  }
  expect(seen.size).toBe(count);
  expect(remarks).toBeLessThanOrEqual(8);
  await me.click(page.getByRole('button', { name: 'Back to marking' }));
  const saving = page.waitForEvent('download');
  await me.click(page.getByRole('button', { name: 'Save as CSV' }));
  const csv = await textOf(await saving);
  for (const line of csv.split('\r\n')) {
    const isWrong = [...seen].some((one) => line.startsWith(one));
    expect([line, /not as asked, look again|\w\.,2026-/.test(line)]).toEqual([line, isWrong]);
  }
  me.done('Sixty hand-ins: the wrong ones looked at, commented, saved', 90);
});

test('a class is dropped all at once: each is filed, the copies come first, the charts lead to the hand-ins', async ({
  page,
}) => {
  await page.goto('/marking');
  await take(page, planted.files);
  const of = planted.six.length;
  await expect(page.getByText(`${of} hand-ins ·`)).toBeVisible();
  const right = of - new Set([...planted.mistakes.keys(), ...planted.swinging]).size;
  await expect(page.getByText(`${of} hand-ins · ${right} all right`)).toBeVisible();
  // What cannot be taken is named, each with its reason; the sixteen gates are not here.
  for (const name of planted.broken) await expect(page.getByText(name)).toBeVisible();
  await expect(page.getByText(/its exercise, “Gates”, is not here/).first()).toBeVisible();
  // Only some of the rows are in the page, and one that is far down is found.
  expect(await rows(page).count()).toBeLessThan(of / 2);
  const last = planted.copies.at(-1)![0];
  await page.getByRole('searchbox', { name: 'Find a name' }).fill(last);
  await expect(rows(page)).toHaveCount(1);
  await page.getByRole('searchbox', { name: 'Find a name' }).fill('');

  await view(page, 'Likeness').click();
  const pairs = page.getByRole('article');
  await expect(pairs.first()).toBeVisible();
  const told = await pairs.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')));
  const copied = planted.copies.map((pair) => [...pair].sort().join(' and '));
  expect(new Set(told.slice(0, copied.length))).toEqual(new Set(copied));
  await pairs.first().getByRole('button', { name: 'Side by side' }).click();
  await expect(pairs.first().getByRole('img')).toHaveCount(2);

  await view(page, 'The class').click();
  const wrong = page.getByRole('figure', { name: 'Where it goes wrong' });
  await wrong.getByText('As a table').click();
  const worst = wrong.getByRole('button', { name: /: wrong in \d+$/ }).first();
  const howMany = Number(/\d+$/.exec((await worst.textContent())!)![0]);
  await worst.click();
  await expect(page.getByText(/^Those with row \d+ wrong/)).toBeVisible();
  await expect(page.getByRole('table')).toHaveAttribute('aria-rowcount', String(howMany + 1));
  await page.getByRole('button', { name: 'List all' }).click();
  await expect(page.getByRole('table')).toHaveAttribute('aria-rowcount', String(of + 1));
  await view(page, 'The class').click();
  for (const kind of ['SVG', 'PNG']) {
    const saving = page.waitForEvent('download');
    await page.getByRole('button', { name: `Save “Points” as ${kind}` }).click();
    expect((await saving).suggestedFilename()).toBe(`points.${kind.toLowerCase()}`);
  }
  // Another visit has them at once, and nothing is marked again.
  await page.reload();
  await expect(page.getByText(`${of} hand-ins · ${right} all right`)).toBeVisible();
});

test('reading a class is stopped, and goes on with the rest', async ({ page }) => {
  // Six classes at once, so that there is time to press.
  const own = planted.files.filter(({ name }) => /^Turnstiles-Student-\d+-Sample\.handin/.test(name));
  const many = ['A', 'B', 'C', 'D', 'E', 'F'].flatMap((initial) =>
    own.map(({ name, text }) => ({
      name: `${initial}-${name}`,
      text: text.replaceAll(' Sample', ` ${initial}. Sample`),
    })),
  );
  await page.goto('/marking');
  await take(page, many);
  const told = page.getByText(/^\d+ hand-ins ·/);
  await expect(told).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Stopped.', { exact: false })).toBeVisible();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  expect(Number.parseInt((await told.textContent())!, 10)).toBeLessThan(many.length);
  await take(page, many);
  // As long as a busy machine needs for six hundred: the bar tells that it goes on.
  await expect(page.getByText(`${many.length} hand-ins ·`)).toBeVisible({ timeout: 120_000 });
  await expect(page.getByRole('progressbar')).toHaveCount(0, { timeout: 60_000 });
});

test('two tabs mark one class, and neither loses what the other gave', async ({ page, context }) => {
  await page.goto('/marking');
  const files = planted.files.filter(({ name }) => /^Turnstiles-Student-00[2-5]-Sample\.handin/.test(name));
  await take(page, files);
  await expect(rows(page)).toHaveCount(files.length);
  const other = await context.newPage();
  await other.goto('/marking');
  const give = async (tab: Page, student: string, text: string) => {
    await rows(tab).filter({ hasText: student }).getByRole('button', { name: 'Open' }).click();
    const given = tab.getByRole('region', { name: 'Points and remarks' });
    await given.getByLabel('New remark').fill(text);
    await given.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(given.getByRole('list', { name: 'Remarks' })).toContainText(text);
  };
  await give(page, '002', 'from the first tab');
  await give(other, '003', 'from the second tab');
  for (const tab of [page, other]) {
    await tab.goto('/marking');
    const saving = tab.waitForEvent('download');
    await tab.getByRole('button', { name: 'Save as CSV' }).click();
    const csv = await textOf(await saving);
    expect(csv).toContain('from the first tab');
    expect(csv).toContain('from the second tab');
  }
});
