/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Hints } from './Hints';
import { hint } from './hint';

jest.mock('./lazy-component', () => ({
  lazyComponent: () => (props: { text: string }) => <p role="tooltip">{props.text}</p>,
}));

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

function page() {
  render(
    <>
      <button type="button" {...hint('Undo: turn AND 1')}>
        Undo
      </button>
      <button type="button" {...hint('Redo')}>
        Redo
      </button>
      <p>Paper</p>
      <Hints />
    </>,
  );
  const over = (name: string) => fireEvent.pointerOver(screen.getByText(name), { pointerType: 'mouse' });
  const wait = (ms: number) => act(() => void jest.advanceTimersByTime(ms));
  const shown = () => screen.queryByRole('tooltip')?.textContent ?? null;
  return { over, wait, shown };
}

test('a hint is shown when the pointer rests on it, and goes when the pointer leaves', () => {
  const { over, wait, shown } = page();
  over('Undo');
  wait(200);
  expect(shown()).toBeNull();
  wait(400);
  expect(shown()).toBe('Undo: turn AND 1');
  over('Redo');
  wait(0);
  expect(shown()).toBe('Redo');
  over('Paper');
  expect(shown()).toBeNull();
});

test('a press and any key hide it; it is read out as the description of its element', () => {
  const { over, wait, shown } = page();
  over('Undo');
  wait(1000);
  fireEvent.pointerDown(screen.getByText('Undo'));
  expect(shown()).toBeNull();
  over('Redo');
  wait(1000);
  fireEvent.keyDown(document.body, { key: 'k', ctrlKey: true });
  expect(shown()).toBeNull();
  expect(screen.getByText('Undo').getAttribute('aria-description')).toBe('Undo: turn AND 1');
});
