/** @jest-environment jsdom */
import { render } from '@testing-library/react';
import { usePainter } from './usePainter';

function Picture({ height }: { readonly height: number }) {
  const { canvas } = usePainter(
    () => {},
    () => ({ width: 300, height }),
  );
  return <canvas ref={canvas} title="picture" />;
}

test('a canvas has its height before its first paint, so that nothing moves under a hand', () => {
  Object.defineProperty(document, 'fonts', { value: { ready: Promise.resolve() } });
  const observed: Element[] = [];
  globalThis.ResizeObserver = class {
    observe = (element: Element) => observed.push(element);
    unobserve = () => {};
    disconnect = () => {};
  };
  const { getByTitle } = render(<Picture height={240} />);
  expect(getByTitle('picture').style.height).toBe('240px');
  expect(observed).toHaveLength(1);
});
