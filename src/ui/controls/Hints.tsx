'use client';

import { useEffect, useState } from 'react';
import type { ShownHint } from './HintTip';
import { lazyComponent } from './lazy-component';

const HintTip = lazyComponent('tooltips', () => import('./HintTip').then((m) => m.HintTip));

/** Ms for which the pointer rests before a hint is shown, and for which the next one is shown at once. */
const REST = 450;
const WARM = 400;

/** Shows the hint of the element that is pointed at, or that has been reached with the keyboard. */
export function Hints() {
  const [shown, setShown] = useState<ShownHint | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let hidden = Number.NEGATIVE_INFINITY;
    let target: Element | null = null;
    /** The element with a hint that the pointer is over, shown or not yet. */
    let over: Element | null = null;
    const hide = () => {
      clearTimeout(timer);
      if (target) hidden = performance.now();
      target = null;
      over = null;
      setShown(null);
    };
    const show = (element: Element) => {
      target = element;
      const text = element.getAttribute('data-hint');
      if (text && element.isConnected) setShown({ text, box: element.getBoundingClientRect() });
    };
    const hinted = (event: Event) =>
      event.target instanceof Element ? event.target.closest('[data-hint]') : null;
    const onOver = (event: PointerEvent) => {
      const element = event.pointerType === 'touch' ? null : hinted(event);
      if (element === over && (element !== null || target === null)) return;
      const isWarm = target !== null || performance.now() - hidden < WARM;
      hide();
      over = element;
      if (element) timer = setTimeout(() => show(element), isWarm ? 0 : REST);
    };
    const onFocus = (event: FocusEvent) => {
      const element = hinted(event);
      if (element?.matches(':focus-visible')) show(element);
    };
    document.addEventListener('pointerover', onOver);
    document.addEventListener('pointerdown', hide, true);
    document.addEventListener('focusin', onFocus);
    document.addEventListener('focusout', hide);
    document.addEventListener('keydown', hide, true);
    document.addEventListener('scroll', hide, true);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('pointerover', onOver);
      document.removeEventListener('pointerdown', hide, true);
      document.removeEventListener('focusin', onFocus);
      document.removeEventListener('focusout', hide);
      document.removeEventListener('keydown', hide, true);
      document.removeEventListener('scroll', hide, true);
    };
  }, []);
  return shown && <HintTip {...shown} />;
}
