import type { Page } from '@playwright/test';

/**
 * What has too little room on a page, in words: controls that lie on each other, texts and chosen values that are cut, bars
 * in which something has gone to a second line, and what reaches out of the page.
 */
export function crowded(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const wrong: string[] = [];
    const named = (e: Element) => {
      const name = e.getAttribute('aria-label') ?? e.textContent?.trim() ?? '';
      return `${e.tagName.toLowerCase()} “${name.replace(/\s+/g, ' ').slice(0, 30)}”`;
    };
    const isSeen = (e: Element) => {
      const box = e.getBoundingClientRect();
      const style = getComputedStyle(e);
      return (
        box.width > 1 &&
        box.height > 1 &&
        style.visibility === 'visible' &&
        Number(style.opacity) > 0 &&
        !e.closest('[aria-hidden="true"], svg, .sr-only')
      );
    };
    const LAYER =
      '[role="dialog"], [role="menu"], [data-radix-popper-content-wrapper], [role="status"], [role="alert"], [aria-label="First steps"], [data-open]';
    /** The box of an element as far as it is scrolled into what holds it. */
    const seenBox = (e: Element) => {
      let { left, top, right, bottom } = e.getBoundingClientRect();
      for (let at = e.parentElement; at; at = at.parentElement) {
        const { overflowX, overflowY } = getComputedStyle(at);
        if (overflowX === 'visible' && overflowY === 'visible') continue;
        const box = at.getBoundingClientRect();
        left = Math.max(left, box.left);
        right = Math.min(right, box.right);
        top = Math.max(top, box.top);
        bottom = Math.min(bottom, box.bottom);
      }
      return { left, top, right, bottom };
    };
    const controls = [
      ...document.querySelectorAll('button, a[href], input, select, textarea, [role="slider"], [role="tab"]'),
    ].filter((e) => isSeen(e) && !(e instanceof HTMLInputElement && e.type === 'file'));
    for (const [i, a] of controls.entries())
      for (const b of controls.slice(i + 1)) {
        // The button that opens the menu of a lane stands on the diagram.
        if (a.matches('[role="slider"]') && a.parentElement!.contains(b)) continue;
        if (a.contains(b) || b.contains(a) || a.closest(LAYER) !== b.closest(LAYER)) continue;
        const [p, q] = [seenBox(a), seenBox(b)];
        const wide = Math.min(p.right, q.right) - Math.max(p.left, q.left);
        const high = Math.min(p.bottom, q.bottom) - Math.max(p.top, q.top);
        if (wide > 2 && high > 2) wrong.push(`${named(a)} lies on ${named(b)}`);
      }
    for (const e of controls) {
      const { left, right } = e.getBoundingClientRect();
      const scrolls = e.closest('[data-scrolls], .overflow-auto, .overflow-x-auto');
      if (!scrolls && (left < -1 || right > innerWidth + 1))
        wrong.push(`${named(e)} reaches out of the page`);
    }
    const pen = document.createElement('canvas').getContext('2d')!;
    for (const e of document.querySelectorAll('select')) {
      if (!isSeen(e) || e.closest('[data-shrinks]')) continue;
      const style = getComputedStyle(e);
      pen.font = style.font;
      const text = pen.measureText(e.selectedOptions[0]?.text ?? '').width;
      const room =
        e.clientWidth - Number.parseFloat(style.paddingLeft) - Number.parseFloat(style.paddingRight) - 14;
      if (text > room + 1) wrong.push(`${named(e)} cuts “${e.selectedOptions[0]?.text}”`);
    }
    for (const e of document.querySelectorAll('input:placeholder-shown')) {
      if (!isSeen(e)) continue;
      const style = getComputedStyle(e);
      pen.font = style.font;
      const text = pen.measureText(e.getAttribute('placeholder') ?? '').width;
      const room =
        e.clientWidth - Number.parseFloat(style.paddingLeft) - Number.parseFloat(style.paddingRight);
      if (text > room + 1) wrong.push(`${named(e)} cuts its example “${e.getAttribute('placeholder')}”`);
    }
    for (const e of document.querySelectorAll('body *')) {
      if (!isSeen(e) || e instanceof HTMLInputElement || e instanceof HTMLSelectElement) continue;
      // This is cut short before the last of a bar gives way.
      if (e.closest('[data-shrinks]')) continue;
      const hasText = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent!.trim());
      const { overflowX, letterSpacing } = getComputedStyle(e);
      if (
        hasText &&
        overflowX !== 'visible' &&
        overflowX !== 'auto' &&
        e.scrollWidth - (Number.parseFloat(letterSpacing) || 0) > e.clientWidth + 1
      )
        wrong.push(`${named(e)} is cut`);
    }
    for (const bar of document.querySelectorAll('.pane-head, body header')) {
      if (!isSeen(bar)) continue;
      const items = [...bar.children].filter(isSeen).map((e) => e.getBoundingClientRect());
      const middles = items.map((b) => (b.top + b.bottom) / 2);
      if (Math.max(...middles) - Math.min(...middles) > 10) wrong.push(`the bar ${named(bar)} has two lines`);
      const box = bar.getBoundingClientRect();
      if (items.some((b) => b.right > box.right + 1 || b.top < box.top - 1 || b.bottom > box.bottom + 1))
        wrong.push(`something reaches out of the bar ${named(bar)}`);
      for (const e of bar.querySelectorAll('button, span, p, h2'))
        if (
          isSeen(e) &&
          e.children.length === 0 &&
          new Set([...e.getClientRects()].map((r) => Math.round(r.top))).size > 1
        )
          wrong.push(`${named(e)} breaks in two`);
    }
    return [...new Set(wrong)];
  });
}
