import { expect, test } from '@playwright/test';
import { asFile, textOf } from './hand';

const GATE = `
// The gate opens when three of four cars are in their places.
module three(input a, b, c, output y);
  assign y = a & b & c;
endmodule
module platform(input [3:0] car, input clk, output reg open);
  wire l, r;
  three left (car[0], car[1], car[2], l);
  three right (.a(car[1]), .b(car[2]), .c(car[3]), .y(r));
  always @(posedge clk) open <= l | r;
endmodule
`;

test('Verilog is imported as a lesson that runs, and a sheet is saved as Verilog and as a picture', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByLabel('Lesson, exercise or Verilog files').setInputFiles(asFile('platform.v', GATE));
  await expect(page.getByText('The lesson is on the shelf.')).toBeVisible();
  await page.getByRole('article').filter({ hasText: 'platform' }).getByRole('link').first().click();
  const sheet = page.getByRole('application');
  await sheet.waitFor();
  await expect(page.getByRole('listbox', { name: /Parts on platform/ })).toBeAttached();
  await expect(
    page.getByRole('option', { name: /left, block three with 3 inputs and 1 output/ }),
  ).toBeAttached();

  await page.getByRole('button', { name: /platform/ }).click();
  const [verilog] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save as Verilog' }).click(),
  ]);
  expect(verilog.suggestedFilename()).toBe('platform.v');
  expect(await textOf(verilog)).toMatch(/module platform \([\s\S]*three left \([\s\S]*module three/);
  await page.getByRole('button', { name: /platform/ }).click();
  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save as a picture (SVG)' }).click(),
  ]);
  expect(await textOf(picture)).toMatch(/^<svg [\s\S]*>three</);
});

test('Verilog that cannot be read says where and why, and nothing is lost', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(7);
  await page
    .getByLabel('Lesson, exercise or Verilog files')
    .setInputFiles(asFile('broken.v', 'module t(input a);\n  initial forever a = 1;\nendmodule'));
  await expect(page.getByText(/broken\.v was left out: line 2, column 11: /)).toBeVisible();
  await expect(page.getByRole('article')).toHaveCount(7);
});
