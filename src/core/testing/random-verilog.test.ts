import { readVerilog } from '../formats/verilog/read';
import { expectDone } from '../values/result';
import { dice } from './dice';
import { bitsOfNumber, type RandomModule, randomModule, type Values } from './random-verilog';
import { Rig } from './rig';

const MODULES = Number(process.env.MODEL_RUNS ?? 250);

const text = (bits: readonly boolean[]) =>
  [...bits]
    .reverse()
    .map((b) => (b ? '1' : '0'))
    .join('');

/** Lets storage take what it takes until nothing changes. */
function rested(of: RandomModule, before: Values, given: Values): Values {
  let was = before;
  let now = of.settle(given);
  for (let round = 0; round < 30; round++) {
    const next = of.clock(was, now);
    was = now;
    if (Object.entries(next).every(([name, bits]) => text(bits) === text(now[name]!))) return now;
    now = of.settle({ ...now, ...next });
  }
  throw new Error('it never comes to rest');
}

test('random modules of every construct that is read do what the standard says', () => {
  for (let seed = 1; seed <= MODULES; seed++) {
    const roll = dice(seed);
    const of = randomModule(roll);
    const read = readVerilog(of.text, 'Random', { module: 'top' });
    if (!read.ok) throw new Error(`seed ${seed}: ${read.problem.message}\n${of.text}`);
    const rig = new Rig(expectDone(read).sheets[0]!, {}, read.value.sheets);
    const zero = Object.fromEntries(of.inputs.map(({ name, width }) => [name, bitsOfNumber(0, width)]));
    const begin = of.settle({ ...zero, ...of.begin });
    let now = rested(of, begin, begin);
    const known = { engine: [] as string[], standard: [] as string[] };
    const look = (step: string) => {
      known.engine.push([step, ...of.outputs.map(({ name }) => rig.word(name))].join(' '));
      known.standard.push([step, ...of.outputs.map(({ name }) => text(now[name]!))].join(' '));
    };
    look('power-up');
    for (let step = 0; step < 20; step++) {
      const { name, width } = of.inputs[Math.floor(roll() * of.inputs.length)]!;
      const bits = [...now[name]!];
      const place = Math.floor(roll() * width);
      bits[place] = !bits[place];
      const before = now;
      now = rested(of, before, { ...now, [name]: bits });
      rig.set({ [name]: text(bits) });
      look(`${name} = ${text(bits)}`);
    }
    if (known.engine.join() !== known.standard.join())
      expect({ seed, text: of.text, steps: known.engine }).toEqual({
        seed,
        text: of.text,
        steps: known.standard,
      });
  }
});
