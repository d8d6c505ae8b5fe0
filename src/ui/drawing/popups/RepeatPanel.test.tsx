/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { editorOn } from '@/commands/testing/editor-on';
import { interlock } from '@/core/testing/sketch';
import { SessionProvider } from '@/ui/session/session-context';
import { RepeatPanel } from './RepeatPanel';

function open() {
  const { session } = editorOn(interlock().lesson);
  session.select({ parts: new Set(['not1']), wires: new Set() });
  const onClose = jest.fn();
  render(
    <SessionProvider value={session}>
      <RepeatPanel place={{ left: 0, top: 0, width: 0, height: 0 }} onClose={onClose} />
    </SessionProvider>,
  );
  const fill = async (label: string, text: string) => {
    await userEvent.clear(screen.getByLabelText(label));
    await userEvent.type(screen.getByLabelText(label), text);
  };
  return {
    session,
    onClose,
    fill,
    inverters: () => [...session.sheet.parts.keys()].filter((id) => id.startsWith('not')),
  };
}

test('the first field has the focus, and Enter repeats the selection', async () => {
  const { session, onClose, inverters } = open();
  expect(document.activeElement).toBe(screen.getByLabelText('Copies'));
  await userEvent.keyboard('4{Enter}');
  expect(inverters()).toHaveLength(5);
  expect(onClose).toHaveBeenCalled();
  expect(session.state.history.undo.at(-1)!.name).toMatch(/^repeat/);
});

test('an impossible count or step is told, and nothing is made', async () => {
  const { fill, inverters } = open();
  await fill('Copies', '0');
  expect(screen.getByRole('status').textContent).toMatch(/whole number from 1 to 200/);
  expect((screen.getByRole('button', { name: 'Repeat' }) as HTMLButtonElement).disabled).toBe(true);
  await fill('Copies', '2');
  await fill('Steps down', '0');
  expect(screen.getByRole('status').textContent).toMatch(/One of the steps must not be 0/);
  await userEvent.keyboard('{Enter}');
  expect(inverters()).toHaveLength(1);
});

test('Escape closes it', async () => {
  const { onClose, inverters } = open();
  await userEvent.keyboard('{Escape}');
  expect(onClose).toHaveBeenCalled();
  expect(inverters()).toHaveLength(1);
});
