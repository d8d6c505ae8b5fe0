import { Simulation } from '../formats/verilog/interpret/simulation';
import { parseVerilog } from '../formats/verilog/parse';
import { readVerilog } from '../formats/verilog/read';
import { digitsOf, wordOf } from '../formats/verilog/word';
import { dice } from './dice';
import { type RandomBehaviour, randomBehaviour } from './random-behaviour';
import { Rig } from './rig';

const DESIGNS = Number(process.env.BEHAVIOURS ?? 200);
const FROM = Number(process.env.BEHAVIOURS_FROM ?? 1);
const STEPS = 12;

/** Values of outputs after each of some changes of inputs, from the text and from the circuit. */
function played(of: RandomBehaviour, roll: () => number): { text: string[]; circuit: string[] } {
  const modules = parseVerilog(of.text);
  const read = readVerilog(of.text, 'Random');
  if (!read.ok) throw new Error(read.problem.message);
  const inputs = [...of.inputs, ['clk', 1], ['rst', 1]] as const;
  const simulation = new Simulation(modules, modules[0]!);
  // Processes wait for changes before the inputs come.
  simulation.run(0);
  for (const [name, width] of inputs) simulation.set(name, wordOf(0, width));
  simulation.run(0);
  const rig = new Rig(read.value.sheets[0]!, {}, read.value.sheets);
  const shown = { text: [] as string[], circuit: [] as string[] };
  for (let step = 0; step < STEPS; step++) {
    // The clock changes alone, as it does where data keeps its setup time.
    const [name, width] =
      step % 3 === 2 ? (['clk', 1] as const) : inputs[Math.floor(roll() * inputs.length)]!;
    const value =
      name === 'clk' ? (digitsOf(simulation.value('clk')) === '1' ? 0 : 1) : Math.floor(roll() * 2 ** width);
    simulation.set(name, wordOf(value, width));
    simulation.run(step + 1);
    rig.set({ [name]: value.toString(2).padStart(width, '0') });
    for (const output of of.outputs) {
      const digits = digitsOf(simulation.value(output));
      const word = rig.word(output);
      shown.text.push(`${step} ${name}=${value} ${output} ${digits}`);
      // What the text leaves unknown, a circuit may have either way.
      shown.circuit.push(
        `${step} ${name}=${value} ${output} ${[...word].map((c, i) => (/[xz]/.test(digits[i]!) ? digits[i] : c)).join('')}`,
      );
    }
  }
  return shown;
}

test('random designs do as circuits what their text says', () => {
  for (let seed = FROM; seed < FROM + DESIGNS; seed++) {
    const roll = dice(seed);
    const of = randomBehaviour(roll);
    let shown: ReturnType<typeof played>;
    try {
      shown = played(of, roll);
    } catch (error) {
      throw new Error(`seed ${seed}: ${(error as Error).message}\n${of.text}`);
    }
    const { text, circuit } = shown;
    if (text.join() !== circuit.join()) {
      const at = text.findIndex((line, i) => line !== circuit[i]);
      throw new Error(`seed ${seed}: the text has ${text[at]}, the circuit ${circuit[at]}\n${of.text}`);
    }
  }
});
