// Everything that must hold before a change goes in: types, style, rooms, refusals, unit tests, build, browser tests.
// The last line counts checks and tests: `N passed, N failed`.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

const bin = (name) => `node_modules/.bin/${name}`;
let passed = 0;
let failed = 0;

function run(title, command, args, env = {}) {
  const begun = Date.now();
  process.stdout.write(`\n== ${title}\n`);
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  process.stdout.write(
    `== ${title}: ${status === 0 ? 'ok' : 'FAILED'} (${Math.round((Date.now() - begun) / 1000)} s)\n`,
  );
  return status === 0;
}

function check(title, command, args) {
  if (run(title, command, args)) passed++;
  else failed++;
}

/** Adds a test runner's own counts; a run that gives none, or ends badly with no failure to show, is a failure. */
function count(ok, report, read) {
  const counts = existsSync(report)
    ? read(JSON.parse(readFileSync(report, 'utf8')))
    : { passed: 0, failed: 1 };
  passed += counts.passed;
  failed += counts.failed;
  if (counts.passed + counts.failed === 0 || (!ok && counts.failed === 0)) failed++;
}

mkdirSync('test-results', { recursive: true });
for (const report of ['test-results/unit.json', 'test-results/report.json']) rmSync(report, { force: true });

// The types of the pages' own imports of styles stand in a file that Next writes.
check('types', 'bash', ['-c', `${bin('next')} typegen >/dev/null && ${bin('tsc')} --noEmit`]);
check('style', bin('biome'), ['check', '.']);
check('rooms', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'app', 'src', 'cli', 'demo']);
check('refusals', 'scripts/run-ts', ['scripts/check-results.ts']);
check('limits', 'env', ['LIMITS_MS=10000', 'scripts/run-ts', 'scripts/limits.ts']);
const unit = run('unit tests', bin('jest'), ['--json', '--outputFile=test-results/unit.json']);
count(unit, 'test-results/unit.json', (r) => ({
  passed: r.numPassedTests,
  failed: r.numFailedTests + r.numRuntimeErrorTestSuites,
}));
const built = run('build', 'scripts/build', []);
if (built) {
  passed++;
  const pages = run('browser tests', bin('playwright'), ['test', ...process.argv.slice(2)]);
  count(pages, 'test-results/report.json', ({ stats }) => ({
    passed: stats.expected,
    failed: stats.unexpected + stats.flaky,
  }));
} else failed++;

process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
