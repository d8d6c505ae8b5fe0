import { pin, Sketch } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { wire } from './changes/wires';
import { Session } from './session';
import { whyIsItUnknown } from './why-unknown';

const why = (session: Session, part: string) => {
  session.select({ parts: new Set([part]), wires: new Set() });
  const made = whyIsItUnknown(session);
  return made.ok ? made.value : made.problem.message;
};

test('an open input is named, with the parts by way of which it comes', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('and', 10, 0);
  s.place('not', 20, 0);
  s.place('lamp', 30, 0, 'Drive');
  s.wire('switch1.Y', 'and1.A');
  s.wire('and1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp1.A');
  const session = new Session(s.lesson);
  expect(why(session, 'lamp1')).toBe('select a part or a wire that is X or floats first');
  session.flip('switch1');
  expect(why(session, 'lamp1')).toEqual({
    text: 'Drive is X because nothing drives B of AND 1. It comes by way of AND 1 and NOT 1.',
    parts: new Set(['not1', 'and1']),
    isEndedByPowerUp: false,
  });
  session.select({ parts: new Set(), wires: new Set(['w2']) });
  expect(expectDone(whyIsItUnknown(session)).text).toBe(
    'the wire from AND 1 is X because nothing drives B of AND 1.',
  );
});

test('storage says when it took an unknown value, and whether that is over', () => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1 });
  s.place('switch', 0, 10, 'Open');
  s.place('tri', 10, 10);
  s.place('switch', 0, 20, 'Enable');
  s.place('dff', 30, 0, 'Bell');
  s.wire('clock1.Y', 'dff1.C');
  s.wire('switch1.Y', 'tri1.A');
  s.wire('switch2.Y', 'tri1.EN');
  s.wire('tri1.Y', 'dff1.D');
  const session = new Session(s.lesson);
  session.time.stepHalf();
  expect(why(session, 'dff1')).toMatchObject({
    text: 'Bell is X because Three-state buffer 1 has let go of its wire. Bell took it at 500 ms.',
    isEndedByPowerUp: false,
  });
  // The data is driven now, but Bell takes it only with the next edge.
  session.flip('switch2');
  expect(why(session, 'dff1')).toMatchObject({
    text: expect.stringMatching(/That is over by now: going back to power-up ends it\.$/),
    isEndedByPowerUp: true,
  });
  session.time.restart();
  expect(why(session, 'dff1')).toBe('select a part or a wire that is X or floats first');
  expectDone(wire(session, pin('dff1.Q'), pin('dff1.D')));
});
