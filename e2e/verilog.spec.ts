import { expect, test } from '@playwright/test';
import { asFile, emptySheet, textOf } from './hand';

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

const COUNTER = `
module counter(input clk, input rst, output reg [3:0] count);
  initial count = 0;
  always @(posedge clk) if (rst) count <= 0; else count <= count + 1;
endmodule
`;
const BENCH = `
module bench;
  reg clk = 0, rst = 1;
  wire [3:0] count;
  counter dut(.clk(clk), .rst(rst), .count(count));
  always #5 clk = ~clk;
  initial begin
    #12 rst = 0;
    repeat (3) @(negedge clk);
    $display("after three cycles: %0d", count);
    #4 $finish;
  end
endmodule
`;

test('a test bench in a file of its own drives the circuit, and its lines lead to their moments', async ({
  page,
}) => {
  await page.goto('/');
  await page
    .getByLabel('Lesson, exercise or Verilog files')
    .setInputFiles([asFile('counter.v', COUNTER), asFile('bench.v', BENCH)]);
  await expect(page.getByText('The lesson is on the shelf.')).toBeVisible();
  await page.getByRole('link', { name: 'Open bench' }).click();
  await page.getByRole('application').waitFor();
  const printed = page.getByRole('region', { name: 'Printed' });
  await expect(printed.getByText('Printed by bench')).toBeVisible();
  await printed.getByRole('button', { name: /after three cycles: 3/ }).click();
  await expect(page.getByRole('group', { name: 'The moment' })).toContainText('40 ns');
  await printed.getByRole('button', { name: /Run to its end, 44 ns/ }).click();
  await expect(page.getByRole('group', { name: 'The moment' })).toContainText('44 ns');
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

test('the text face follows the drawing, lights what is selected, selects its parts, and is copied whole', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await emptySheet(page);
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Text' }).click();
  await page.keyboard.press('Escape');
  const face = page.getByRole('region', { name: 'Text' });
  await expect(face).toContainText('stands here as soon as a part is placed');
  await page.keyboard.type('Drive = Key and Bars');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(face).toContainText('4 parts · 3 nets · 1 level');
  const line = face.getByRole('listitem').filter({ hasText: /and .*\(Drive, Key, Bars\);/ });
  await line.getByRole('button').click();
  await expect(line).toHaveAttribute('aria-current', 'true');
  await expect(page.getByRole('option', { name: /^AND 1/ })).toHaveAttribute('aria-selected', 'true');
  // The text follows a change to the selected part, and keys go to the drawing again.
  await page.keyboard.press('Delete');
  await expect(face).toContainText('3 parts');
  await expect(line).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(line).toHaveCount(1);
  await face.getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByText(/lines are on the clipboard/)).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toMatch(/module Sheet_1 \(\n {2}input wire Key,\n/);
  // The copied text can be imported.
  await page.goto('/');
  await page.getByLabel('Lesson, exercise or Verilog files').setInputFiles(asFile('again.v', copied));
  await expect(page.getByText('The lesson is on the shelf.')).toBeVisible();
});
