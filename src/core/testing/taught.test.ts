import { readdirSync, readFileSync } from 'node:fs';
import { rootsOf } from '../formats/verilog/elaborate';
import { Simulation } from '../formats/verilog/interpret/simulation';
import { parseVerilog } from '../formats/verilog/parse';
import { readVerilog } from '../formats/verilog/read';
import { digitsOf, wordOf } from '../formats/verilog/word';
import { dice } from './dice';
import { Rig } from './rig';

const FOLDER = `${__dirname}/taught`;
const FILES = readdirSync(FOLDER).filter((name) => name.endsWith('.v'));

test('there are forty pieces and more', () => {
  expect(FILES.length).toBeGreaterThanOrEqual(40);
});

test.each(FILES)('%s is read, and its circuit does what its text says', (file) => {
  const text = readFileSync(`${FOLDER}/${file}`, 'utf8');
  const read = readVerilog(text, file);
  if (!read.ok) throw new Error(read.problem.message);
  const modules = parseVerilog(text);
  const simulation = new Simulation(modules, rootsOf(modules)[0]!);
  const rig = new Rig(read.value.sheets[0]!, {}, read.value.sheets);
  expect(rig.netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
  const inputs = rig.netlist.inputs.map(({ name, nets }) => [name, nets.length] as const);
  // Processes wait for changes before the inputs come.
  simulation.run(0);
  for (const [name, width] of inputs) simulation.set(name, wordOf(0, width));
  simulation.run(0);
  const roll = dice(7);
  const clock = inputs.find(([name]) => name === 'clk');
  const different: string[] = [];
  for (let step = 0; step < 400; step++) {
    // The clock changes alone; a reset comes seldom.
    const isClock = clock && step % 2 === 1;
    const others = inputs.filter(([name]) => name !== 'clk' && (name !== 'rst' || roll() < 0.1));
    const [name, width] =
      isClock || others.length === 0 ? (clock ?? inputs[0]!) : others[Math.floor(roll() * others.length)]!;
    const value =
      name === 'clk' ? Number(simulation.value('clk').ones ^ 1n) : Math.floor(roll() * 2 ** width);
    simulation.set(name, wordOf(value, width));
    simulation.run(step + 1);
    rig.set({ [name]: value });
    for (const output of rig.netlist.outputs) {
      const wanted = digitsOf(simulation.value(output.name)).toUpperCase();
      const given = rig.word(output.name);
      // What the text leaves unknown, a circuit may have either way.
      if ([...wanted].some((digit, i) => digit !== 'X' && digit !== given[i]))
        different.push(`${step} ${name}=${value}: ${output.name} is ${given}, not ${wanted}`);
    }
  }
  expect(different.slice(0, 5)).toEqual([]);
});
