/** @jest-environment jsdom */
import { emptyLesson } from '@/core/circuit/lesson';
import { partOf, sheetOfParts } from '@/core/testing/rig';
import { saveLesson } from './save-lesson';

/** A lesson that is too large for a plain file. */
const parts = Array.from({ length: 20_001 }, (_, i) => partOf('not', `n${i}`));
const lesson = { ...emptyLesson('large', 'Ride counter'), sheets: [sheetOfParts(parts, [])] };

test('where the browser cannot pack, a large lesson is saved as text rather than not at all', async () => {
  expect('CompressionStream' in window).toBe(false);
  const saved = new Promise<string>((resolve) => {
    URL.createObjectURL = () => 'blob:';
    URL.revokeObjectURL = () => {};
    HTMLAnchorElement.prototype.click = function (this: HTMLAnchorElement) {
      resolve(this.download);
    };
  });
  saveLesson(lesson);
  expect(await saved).toBe('ride-counter.manege.json');
});
