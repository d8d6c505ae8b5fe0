/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Boundary } from './Boundary';

let isBroken = true;

function Face() {
  if (isBroken) throw new Error('a wire to nowhere');
  return <p>The face</p>;
}

test('a failure stays in its place, says why, and is tried again', async () => {
  const log = jest.spyOn(console, 'error').mockImplementation(() => {});
  isBroken = true;
  render(
    <>
      <p>The rest of the page</p>
      <Boundary
        fallback={(error, retry) => (
          <button type="button" onClick={retry}>
            {error.message}
          </button>
        )}
      >
        <Face />
      </Boundary>
    </>,
  );
  expect(screen.getByText('The rest of the page')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'a wire to nowhere' }));
  expect(screen.queryByText('The face')).toBeNull();
  isBroken = false;
  await userEvent.click(screen.getByRole('button', { name: 'a wire to nowhere' }));
  expect(screen.getByText('The face')).toBeTruthy();
  log.mockRestore();
});
