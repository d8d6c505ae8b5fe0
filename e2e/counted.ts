import { readFileSync } from 'node:fs';
import { expect, type Locator, type Page } from '@playwright/test';
import type { SheetHand } from './hand';

/**
 * Seconds by the keystroke-level model (Card, Moran and Newell 1983, "The Psychology of Human-Computer Interaction"):
 * a key or a click (an average typist), pointing, a press or release of the button, the hand from one device to the
 * other, and thinking before each thing that is done.
 */
const SECONDS = { K: 0.28, P: 1.1, B: 0.1, H: 0.4, M: 1.35 };

/** Performs real actions on the page and counts their cost to a person. */
export class Counted {
  private readonly counts = { K: 0, P: 0, B: 0, H: 0, M: 0 };
  private on: 'keyboard' | 'pointer' = 'keyboard';
  private response = 0;

  constructor(
    private readonly page: Page,
    private readonly hand: SheetHand,
  ) {}

  private reach(device: 'keyboard' | 'pointer'): void {
    if (this.on !== device) this.counts.H++;
    this.on = device;
  }

  /** Thinks of a line and types it with Enter; a capital or a sign above costs a Shift as well. */
  async line(text: string): Promise<void> {
    this.reach('keyboard');
    this.counts.M++;
    this.counts.K += text.length + 1 + [...text].filter((c) => /[A-Z()+*:"?]/.test(c)).length;
    const field = this.page.getByRole('combobox', { name: 'Name of a part' });
    await this.page.keyboard.type(text);
    await expect(field).toHaveValue(text);
    await this.page.keyboard.press('Enter');
    await expect(field).toHaveCount(0);
  }

  async drag(from: [number, number], to: [number, number]): Promise<void> {
    await this.carry(() => this.hand.drag(from, to));
  }

  /** Drags from one place of the page to another, each of them aimed at. */
  async carry(doing: () => Promise<void>): Promise<void> {
    this.reach('pointer');
    this.counts.M++;
    this.counts.P += 2;
    this.counts.B += 2;
    await doing();
  }

  /** Drags on from place to place, each of them aimed at. */
  async sweep(from: [number, number], ...over: [number, number][]): Promise<void> {
    this.reach('pointer');
    this.counts.M++;
    this.counts.P += 1 + over.length;
    this.counts.B += 2;
    await this.hand.point(...from);
    await this.page.mouse.down();
    for (const at of over) await this.page.mouse.move(...(await this.hand.pixel(...at)), { steps: 30 });
    await this.page.mouse.up();
  }

  async key(key: string): Promise<void> {
    this.reach('keyboard');
    this.counts.K += key.split('+').length;
    await this.page.keyboard.press(key);
  }

  /** Thinks of something and types it. */
  async keys(text: string): Promise<void> {
    this.reach('keyboard');
    this.counts.M++;
    this.counts.K += text.length + [...text].filter((c) => /[A-Z()+*:"?]/.test(c)).length;
    await this.page.keyboard.type(text);
  }

  async click(what: Locator): Promise<void> {
    this.reach('pointer');
    this.counts.M++;
    this.counts.P++;
    this.counts.B += 2;
    await what.click();
  }

  /** Chooses from a list: pointed at and opened, thought of, and chosen by its first letter and Enter. */
  async choose(list: Locator, option: string): Promise<void> {
    this.reach('pointer');
    this.counts.M++;
    this.counts.P++;
    this.counts.B += 2;
    this.reach('keyboard');
    this.counts.K += 2;
    await list.selectOption(option);
  }

  /** Strokes from a place on paper over a family of the ring to one of its parts, and lets go there. */
  async ring(x: number, y: number, family: string, part: string, inputs = ''): Promise<void> {
    this.reach('pointer');
    this.counts.M++;
    this.counts.P += 2;
    this.counts.B += 2;
    const ring = this.page.getByRole('menu', { name: 'Parts to place' });
    await this.hand.point(x, y);
    await this.page.mouse.down({ button: 'right' });
    await expect(ring).toBeVisible();
    // The other hand is on the keys.
    this.counts.K += inputs.length;
    if (inputs) await this.page.keyboard.press(inputs);
    for (const name of [family, part]) {
      const box = (await ring.getByRole('menuitem', { name, exact: true }).boundingBox())!;
      await this.page.mouse.move(box.x + box.width / 2, box.y + box.height / 2, { steps: 6 });
    }
    await this.page.mouse.up({ button: 'right' });
    await expect(ring).toHaveCount(0);
  }

  /** Types a short text for which there is a field already, with Enter. */
  async label(text: string): Promise<void> {
    this.reach('keyboard');
    this.counts.K += text.length + 1 + [...text].filter((c) => /[A-Z]/.test(c)).length;
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }

  /** Points at something and presses it, with keys held. */
  async press(doing: () => Promise<void>, keys = 0): Promise<void> {
    this.reach('pointer');
    this.counts.M++;
    this.counts.P++;
    this.counts.B += 2;
    this.counts.K += keys;
    await doing();
  }

  /** Presses something that lies under the pointer already, or is next in one thought. */
  async pressOn(doing: () => Promise<void>, isPointedAt: boolean): Promise<void> {
    this.reach('pointer');
    if (!isPointedAt) this.counts.P++;
    this.counts.B += 2;
    await doing();
  }

  /** Time that passes while the page is at work. */
  waited(seconds: number): void {
    this.response += seconds;
  }

  /** Holds the count against the limit and against the published one. */
  done(task: string, limit: number): void {
    const { K, P, B, H, M } = this.counts;
    const seconds = Object.entries(this.counts).reduce(
      (sum, [op, n]) => sum + n * SECONDS[op as keyof typeof SECONDS],
      this.response,
    );
    expect(seconds).toBeLessThan(limit);
    const row = `| ${task} | ${K} | ${P} | ${B} | ${H} | ${M} | ${seconds.toFixed(1)} | ${limit} |`;
    // The table is set in columns there.
    expect(readFileSync('docs/keystrokes.md', 'utf8').replace(/ +/g, ' ')).toContain(row);
  }
}
