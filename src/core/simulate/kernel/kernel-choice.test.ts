import { KernelChoice } from './kernel-choice';

/** Stretches until it is not gone on with; at most so many. */
function stretches(choice: KernelChoice, eventsEach: number, most: number): number {
  for (let count = 1; count <= most; count++) if (!choice.isWorth(count * eventsEach)) return count;
  return most;
}

test('a long run goes over once, a short one never', () => {
  const choice = new KernelChoice(50);
  expect([choice.isTime(0), choice.isTime(999), choice.isTime(1000)]).toEqual([false, false, true]);
  expect(choice.isAtOnce).toBe(false);
  expect(new KernelChoice(1000).isAtOnce).toBe(true);
  expect(new KernelChoice(1000, Number.POSITIVE_INFINITY).isAtOnce).toBe(false);
  expect(new KernelChoice(50, Number.POSITIVE_INFINITY).isTime(1e9)).toBe(false);
});

test('where storage takes part all the time it is left soon, and thought of ever more rarely', () => {
  const choice = new KernelChoice(50);
  choice.changed(1000, 0);
  expect(stretches(choice, 100, 10_000)).toBe(10_000);
  const waits: number[] = [];
  for (let turn = 0; turn < 3; turn++) {
    choice.changed(0, 0);
    expect(stretches(choice, 3, 10_000)).toBe(256);
    choice.changed(0, 0);
    let wait = 0;
    while (!choice.isTime(wait)) wait += 1000;
    waits.push(wait);
  }
  expect(waits).toEqual([4000, 16_000, 64_000]);
});

test('in a large circuit the way there costs more, so it is waited for longer', () => {
  const choice = new KernelChoice(20_000);
  choice.changed(5000, 0);
  expect([choice.isTime(24_999), choice.isTime(25_000)]).toEqual([false, true]);
});

test('where it is always wanted it is always taken', () => {
  const choice = new KernelChoice(50, 0);
  choice.changed(0, 0);
  expect(choice.isTime(0)).toBe(true);
  expect(stretches(choice, 0, 1000)).toBe(1000);
});
