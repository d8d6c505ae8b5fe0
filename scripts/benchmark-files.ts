import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import * as made from '../src/core/testing/benchmark-circuits';

/*
 * Writes benchmark circuits in the formats in which they are exchanged: `npm run circuits -- FOLDER`. Two files of a pair do the same,
 * which `./manege prove` finds.
 */

const [folder] = process.argv.slice(2);
if (!folder) {
  console.error('npm run circuits -- FOLDER: the folder into which the files are written');
  process.exit(2);
}
mkdirSync(folder, { recursive: true });
const write = (name: string, text: string) => {
  writeFileSync(join(folder, name), text);
  console.log(`${name}: ${text.split('\n').length - 1} lines`);
};
for (const n of [16, 64, 128]) {
  write(`adder-${n}.blif`, made.rippleAdder(n));
  write(`adder-${n}.aag`, made.prefixAdder(n));
}
for (const n of [8, 16, 24]) {
  write(`multiplier-${n}.blif`, made.arrayMultiplier(n));
  write(`multiplier-${n}.aag`, made.carrySaveMultiplier(n));
}
for (const n of [64, 512]) {
  write(`parity-${n}.blif`, made.parityChain(n));
  write(`parity-${n}.aag`, made.parityTree(n));
}
for (const n of [4, 8]) {
  write(`counter-${n}.blif`, made.counter(n));
  write(`counter-${n}.kiss2`, made.counterTable(n));
}
write('majority-9.pla', made.majorityTable(9));
write('majority-9.blif', made.majorityCount(9));
