/*
 * Runs the built command line: `node launch.cjs BUILT ARGUMENTS`. Compiling it takes longer than most of its work, so what the
 * engine has compiled for a command is kept beside the build and taken by the next run of that command.
 */
const { readFileSync, renameSync, writeFileSync } = require('node:fs');
const { Script } = require('node:vm');

const [built] = process.argv.splice(2, 1);
const command = /^[a-z]+$/.test(process.argv[2] ?? '') ? process.argv[2] : 'help';
const kept = `${built}.${command}.code`;

/** The file, or nothing where there is none that can be read. */
function fromEarlier() {
  try {
    return readFileSync(kept);
  } catch {
    return undefined;
  }
}

const source = `(function (require, module) {${readFileSync(built, 'utf8')}\n})`;
const cachedData = fromEarlier();
const script = new Script(source, { filename: built, cachedData });
if (!cachedData || script.cachedDataRejected)
  process.once('exit', (code) => {
    // A command that was refused has compiled little of itself.
    if (code > 1) return;
    try {
      writeFileSync(`${kept}.${process.pid}`, script.createCachedData());
      renameSync(`${kept}.${process.pid}`, kept);
    } catch {
      // A folder that cannot be written to: the next run compiles again.
    }
  });
script.runInThisContext()(require, module);
