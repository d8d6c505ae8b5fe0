/** Says of an element that it stands for something that is still being drawn. */
export const STILL_DRAWN = { 'data-drawn': 'later' } as const;
const WAITING = '[data-drawn=later]';

/** Resolves when nothing inside an element is still being drawn, and all its pictures are there. */
export async function whenDrawn(element: Element): Promise<void> {
  await new Promise<void>((resolve) => {
    const look = () => {
      if (element.querySelector(WAITING)) return;
      watch.disconnect();
      resolve();
    };
    const watch = new MutationObserver(look);
    watch.observe(element, { childList: true, subtree: true, attributes: true });
    look();
  });
  // A picture that cannot be shown is not waited for.
  await Promise.all([...element.querySelectorAll('img')].map((image) => image.decode().catch(() => {})));
}
