/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import { Notice } from './Notice';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('a calm message goes by itself, a bad one stays until it is closed', () => {
  const dismiss = jest.fn();
  const { rerender } = render(<Notice text="Saved." tone="calm" dismiss={dismiss} />);
  expect(screen.getByRole('status').textContent).toContain('Saved.');
  act(() => void jest.advanceTimersByTime(60_000));
  expect(dismiss).toHaveBeenCalledTimes(1);
  rerender(<Notice text="That does not work." tone="bad" dismiss={dismiss} />);
  act(() => void jest.advanceTimersByTime(60_000));
  expect(dismiss).toHaveBeenCalledTimes(1);
  expect(screen.getByRole('alert').textContent).toContain('That does not work.');
});

test('another text starts the time again', () => {
  const dismiss = jest.fn();
  const { rerender } = render(<Notice text="One" tone="calm" dismiss={dismiss} />);
  act(() => void jest.advanceTimersByTime(7000));
  rerender(<Notice text="Two" tone="calm" dismiss={dismiss} />);
  act(() => void jest.advanceTimersByTime(7000));
  expect(dismiss).not.toHaveBeenCalled();
  act(() => void jest.advanceTimersByTime(2000));
  expect(dismiss).toHaveBeenCalledTimes(1);
});
