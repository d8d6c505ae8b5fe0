/** @jest-environment jsdom */
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { emptyLesson } from '@/core/circuit/lesson';
import { DEFAULT_SETTINGS } from '@/core/circuit/sheet';
import { excerptFor } from '@/core/exercise/begin';
import { tableOfSheet } from '@/core/exercise/expected/table/expected-table';
import type { FaultTask } from '@/core/exercise/kinds/fault';
import { buildTask } from '@/core/testing/exercises';
import { Sketch } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { Session } from '@/session/session';
import { SessionProvider } from '@/ui/session/session-context';
import { fault } from './fault';

const LAST = /^shows it ?: row 127$/;

/** A lamp behind an AND of seven inputs: only the last of 128 rows shows that it is stuck at 0. */
function sevenInputs(): FaultTask {
  const sketch = new Sketch();
  sketch.place('and', 12, 0, '', { inputs: 7 });
  for (const [i, name] of [...'ABCDEFG'].entries()) {
    sketch.place('switch', 0, i * 6, name);
    sketch.wire(`switch${i + 1}.Y`, `and1.${name}`);
  }
  sketch.place('lamp', 24, 0, 'Full');
  sketch.wire('and1.Y', 'lamp1.A');
  const { sheet } = sketch;
  const wanted = expectDone(tableOfSheet(sheet));
  return {
    ...buildTask(wanted, []),
    kind: 'fault',
    given: excerptFor(sheet, [sheet], DEFAULT_SETTINGS),
    asked: { does: 'find', needsRow: true, isDark: false },
    key: { part: 'and1', wire: null, wanted },
  };
}

test('any row of a long table can be chosen as the one that shows a fault', async () => {
  const onAnswer = jest.fn();
  render(
    <SessionProvider value={new Session(emptyLesson('free', 'Free'))}>
      <fault.Work task={sevenInputs()} answer={null} onAnswer={onAnswer} />
    </SessionProvider>,
  );
  const table = screen.getByRole('table', { name: 'What is wanted' });
  expect(within(table).queryByRole('button', { name: LAST })).toBeNull();
  const from = screen.getByRole('spinbutton', { name: /^From row/ });
  await userEvent.clear(from);
  await userEvent.type(from, '9999');
  expect(within(table).getAllByRole('button', { name: /^shows it/ })).toHaveLength(1);
  await userEvent.clear(from);
  await userEvent.type(from, '120');
  await userEvent.click(within(table).getByRole('button', { name: LAST }));
  expect(onAnswer).toHaveBeenCalledWith(expect.objectContaining({ row: 127 }));
});
