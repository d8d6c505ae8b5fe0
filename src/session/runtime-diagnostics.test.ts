import { Sketch } from '@/core/testing/sketch';
import { Session } from './session';

/*
 * Problems that appear only while the carousel's circuits run.
 */

/** A flip-flop whose clock comes from a gate that reads a constant nobody knows. */
function clockedBy(value: 'unknown' | 'switch') {
  const s = new Sketch();
  if (value === 'unknown') s.place('constant', 0, 0, '', { unknown: 1 });
  else s.place('switch', 0, 0, 'Push');
  s.place('switch', 0, 8, 'Key');
  s.place('dff', 20, 0, 'Turn');
  s.place('lamp', 40, 0, 'Lit');
  s.wire(`${value === 'unknown' ? 'constant1' : 'switch1'}.Y`, 'dff1.C');
  s.wire(`${value === 'unknown' ? 'switch1' : 'switch2'}.Y`, 'dff1.D');
  s.wire('dff1.Q', 'lamp1.A');
  return new Session(s.lesson);
}

test('an unknown clock is said at the flip-flop that it clocks', () => {
  const session = clockedBy('unknown');
  const [found] = session.state.diagnostics;
  expect(found).toMatchObject({ code: 'clock-unknown', pins: [{ part: 'dff1', port: 'C' }] });
  expect(found!.message).toMatch(/^The clock of .*Turn.* is X, so what it stores is unknown/);
  // Nothing is lost: the rest goes on.
  session.flip('switch1');
  expect(session.state.on.size).toBe(1);
});

test('a clock that is known, and one that hangs loose, is not told as unknown', () => {
  expect(clockedBy('switch').state.diagnostics).toEqual([]);
  const s = new Sketch();
  s.place('dff', 20, 0, 'Turn');
  const codes = new Session(s.lesson).state.diagnostics.map((d) => d.code);
  expect(codes).not.toContain('clock-unknown');
});
