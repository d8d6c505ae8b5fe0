/** @jest-environment jsdom */
import { whenDrawn } from './when-drawn';

/** An element, and whether it was said to be drawn. */
function awaited(html: string) {
  const element = document.createElement('article');
  element.innerHTML = html;
  let isDrawn = false;
  const drawn = whenDrawn(element).then(() => {
    isDrawn = true;
  });
  return { element, drawn, isDrawn: () => isDrawn };
}

/** Lets everything happen that waits for nothing but its turn. */
const turns = () => new Promise((done) => setTimeout(done, 0));

test('what has nothing left to draw is drawn', async () => {
  await awaited('<p>The task</p>').drawn;
});

test('each thing that is still being drawn is waited for, whether it goes or becomes another', async () => {
  const { element, drawn, isDrawn } = awaited(
    '<p><i data-drawn="later"></i></p><p><i data-drawn="later"></i></p>',
  );
  await turns();
  expect(isDrawn()).toBe(false);
  element.querySelector('i')!.remove();
  await turns();
  expect(isDrawn()).toBe(false);
  element.querySelector('i')!.removeAttribute('data-drawn');
  await drawn;
});

test('pictures are waited for, and one that cannot be shown is not waited for in vain', async () => {
  let shown = () => {};
  const decode = jest
    .fn()
    .mockReturnValueOnce(
      new Promise<void>((done) => {
        shown = done;
      }),
    )
    .mockRejectedValueOnce(new Error('no picture'));
  HTMLImageElement.prototype.decode = decode;
  const { drawn, isDrawn } = awaited('<img alt="a"><img alt="b">');
  await turns();
  expect([decode.mock.calls.length, isDrawn()]).toEqual([2, false]);
  shown();
  await drawn;
});
