/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useRef } from 'react';
import { useSheetKeys } from './useSheetKeys';

const press = jest.fn(() => true);

function Page() {
  const sheet = useRef<HTMLDivElement>(null);
  useSheetKeys(sheet, { press, release: () => {}, copy: () => null, paste: () => {} });
  return (
    <>
      <div ref={sheet} />
      <input aria-label="Name" />
    </>
  );
}

beforeEach(() => press.mockClear());

test('a key for the page is taken from within a field, and others stay with it', () => {
  render(<Page />);
  const field = screen.getByLabelText('Name');
  fireEvent.keyDown(field, { key: 'F9' });
  expect(press).toHaveBeenCalledTimes(1);
  fireEvent.keyDown(field, { key: 'n' });
  expect(press).toHaveBeenCalledTimes(1);
});

test('a key that is held for what comes is not pressed at once as well, however late the holding begins', () => {
  render(<Page />);
  const hold = (event: KeyboardEvent) => event.stopImmediatePropagation();
  window.addEventListener('keydown', hold, true);
  fireEvent.keyDown(screen.getByLabelText('Name'), { key: 'F9' });
  fireEvent.keyDown(document.body, { key: 'F9' });
  expect(press).not.toHaveBeenCalled();
  window.removeEventListener('keydown', hold, true);
});
