import fc from 'fast-check';
import { Rig } from '../testing/rig';

test('a register takes a word while it is enabled, and is cleared at once', () => {
  const rig = Rig.of('register', { width: 8, enable: 'yes', clear: 'low' }).set({ CLR: 1 });
  expect(rig.pulse('C', { D: 0xa5, EN: 1 }).number('Q')).toBe(0xa5);
  expect(rig.pulse('C', { D: 0x11, EN: 0 }).number('Q')).toBe(0xa5);
  expect(rig.set({ CLR: 0 }).number('Q')).toBe(0);
});

test.each(['up', 'down', 'both'])(
  'a shift register that goes %s moves all bits by one place',
  (direction) => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ si: fc.nat(1), up: fc.nat(1), load: fc.nat(9), d: fc.nat(31) }), {
          maxLength: 30,
        }),
        (steps) => {
          const rig = Rig.of('shift', { width: 5, direction, load: 'yes' });
          let state = 0;
          for (const { si, up, load, d } of steps) {
            const ld = load === 0 ? 1 : 0;
            const upwards = direction === 'up' || (direction === 'both' && up === 1);
            rig.pulse('C', { SI: si, LD: ld, D: d, ...(direction === 'both' ? { UP: up } : {}) });
            state = ld ? d : upwards ? ((state << 1) | si) & 31 : (state >> 1) | (si << 4);
            expect(rig.number('Q')).toBe(state);
          }
        },
      ),
      { numRuns: 40 },
    );
  },
);

test.each([
  [3, 0, 'up'],
  [4, 10, 'up'],
  [4, 10, 'down'],
  [3, 0, 'down'],
  [3, 6, 'both'],
  [1, 0, 'up'],
])('a counter of %i bits with %i states counts %s', (width, modulo, direction) => {
  const states = modulo || 2 ** width;
  fc.assert(
    fc.property(
      fc.array(fc.record({ up: fc.nat(1), en: fc.nat(3), load: fc.nat(9), d: fc.nat(states - 1) }), {
        maxLength: 40,
      }),
      (steps) => {
        const rig = Rig.of('counter', {
          width,
          modulo,
          direction,
          enable: 'yes',
          load: 'yes',
          clear: 'high',
        });
        let state = 0;
        for (const { up, en, load, d } of steps) {
          const [enabled, ld] = [+(en > 0), +(load === 0)];
          const upwards = direction === 'up' || (direction === 'both' && up === 1);
          rig.set({ D: d, LD: ld, EN: enabled, ...(direction === 'both' ? { UP: up } : {}) });
          expect(rig.number('CO')).toBe(+(enabled === 1 && state === (upwards ? states - 1 : 0)));
          rig.pulse('C');
          if (ld) state = d;
          else if (enabled) state = (state + (upwards ? 1 : states - 1)) % states;
          expect(rig.number('Q')).toBe(state);
        }
        expect(rig.set({ CLR: 1 }).number('Q')).toBe(0);
      },
    ),
    { numRuns: 30 },
  );
});

test('a ROM shows the word at the address, and only what all possible words agree on', () => {
  const content = Array.from({ length: 16 }, (_, i) => (i * 37) % 256);
  const rig = Rig.of('rom', { address: 4, width: 8, content });
  for (const [i, word] of content.entries()) expect(rig.set({ A: i }).number('Q')).toBe(word);
  const two = Rig.of('rom', { address: 1, width: 4, content: [0b1100, 0b1010] });
  expect(two.set({ A: 'X' }).word('Q')).toBe('1XX0');
});

test('a RAM keeps what is written, word by word', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ a: fc.nat(7), d: fc.nat(15), we: fc.nat(1) }), { maxLength: 40 }),
      fc.array(fc.nat(15), { maxLength: 8 }),
      (steps, content) => {
        const rig = Rig.of('ram', { address: 3, width: 4, content });
        const memory = Array.from({ length: 8 }, (_, i) => content[i] ?? 0);
        for (const { a, d, we } of steps) {
          rig.set({ A: a, D: d, WE: we });
          expect(rig.number('Q')).toBe(memory[a]);
          rig.pulse('C');
          if (we) memory[a] = d;
          expect(rig.number('Q')).toBe(memory[a]);
        }
      },
    ),
    { numRuns: 30 },
  );
});

test('a write to an unknown address makes doubtful what it would change', () => {
  const rig = Rig.of('ram', { address: 1, width: 1, content: [0, 1] });
  rig.pulse('C', { A: 'X', D: 1, WE: 1 });
  expect(rig.set({ A: 0 }).word('Q')).toBe('X');
  expect(rig.set({ A: 1 }).word('Q')).toBe('1');
});
