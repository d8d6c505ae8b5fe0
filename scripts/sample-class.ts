import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { foundIn, marksIn, traitsOf } from '../src/core/exercise/found';
import { likePairs } from '../src/core/likeness/likeness';
import { exerciseFiles, sampleClass } from '../src/core/testing/sample-class';

/*
 * Writes a made-up class of which everything is known, to try marking with: `npm run class -- DIRECTORY [COUNT] [SEED]`. With
 * `--seeds N` in place of a directory it is not written: of N classes it is told how well copies are found.
 */

const [first = '', second = '300', third = '1'] = process.argv.slice(2);

if (first === '--seeds') {
  for (let seed = 1; seed <= Number(second); seed++) {
    const planted = sampleClass(300, seed);
    const found = planted.six.map((handIn, i) =>
      foundIn(String(i), handIn, marksIn(handIn, planted.exercises[0]!, [], null)),
    );
    const began = performance.now();
    const pairs = likePairs(found.map(({ answers }) => answers.map(traitsOf)));
    const took = performance.now() - began;
    const wanted = new Set(planted.copies.map((pair) => [...pair].sort().join(' and ')));
    const isCopy = pairs.map(({ one, other }) =>
      wanted.has([planted.six[one]!.name, planted.six[other]!.name].sort().join(' and ')),
    );
    const bits = (at: number) => pairs[at]?.bits.toFixed(1) ?? 'none';
    const foundFirst = isCopy.indexOf(false) === -1 ? isCopy.length : isCopy.indexOf(false);
    const last = isCopy.lastIndexOf(true);
    console.log(
      `seed ${seed}: ${foundFirst} of ${wanted.size} copies first; the last copy ${bits(last)} bits, the first other pair ${bits(isCopy.indexOf(false))}; ${took.toFixed(0)} ms`,
    );
  }
} else {
  if (!first) throw new Error('a directory is needed');
  mkdirSync(first, { recursive: true });
  const planted = sampleClass(Number(second), Number(third));
  for (const { name, text } of [...exerciseFiles(planted), ...planted.files])
    writeFileSync(join(first, name), text);
  const { mistakes, swinging, copies, broken } = planted;
  console.log(
    `${planted.files.length} files: ${mistakes.size} with a mistake, ${swinging.size} that swing, ${broken.length} broken.`,
  );
  for (const pair of copies) console.log(`copied: ${pair.join(' from ')}`);
}
