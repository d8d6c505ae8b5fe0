import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const top = join(__dirname, '..');
const demo = join(top, 'demo', 'drive-interlock.manege.json');
const folder = mkdtempSync(join(tmpdir(), 'manege-'));

function manege(...words: string[]) {
  const { status, stdout, stderr } = spawnSync(join(top, 'manege'), words, { encoding: 'utf8' });
  return { status, stdout, stderr };
}

function file(name: string, text: string): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}

test('prints the table of the interlock as CSV', () => {
  const { status, stdout } = manege('table', demo, '--format', 'csv');
  expect(status).toBe(0);
  expect(stdout.split('\n').slice(0, 3)).toEqual(['Key,Bars,Clear,Drive,Warn', '0,0,0,0,0', '0,0,1,0,0']);
  expect(stdout.split('\n')).toHaveLength(10);
});

test('writes to a file and says in one JSON line what it did', () => {
  const out = join(folder, 'table.md');
  const { status, stdout, stderr } = manege('table', demo, '--format', 'md', '--out', out, '--stats');
  expect([status, stdout]).toEqual([0, '']);
  expect(readFileSync(out, 'utf8').split('\n')[0]).toBe('| Key | Bars | Clear | Drive | Warn |');
  expect(JSON.parse(stderr)).toMatchObject({ rows: 8, gates: 3, ones: { Drive: 1, Warn: 2 } });
});

test.each<[string, string[], RegExp]>([
  ['a missing file', ['table', '/nowhere.manege.json'], /nowhere\.manege\.json: there is no such file/],
  ['a wrong ending', ['table', join(top, 'README.md')], /a lesson file .* is needed/],
  ['an unknown sheet', ['table', demo, '--sheet', 'Cellar'], /no sheet “Cellar”; it has “Drive interlock”/],
  [
    'a broken file',
    ['table', file('broken.manege.json', '{"format"')],
    /broken\.manege\.json: it is not JSON/,
  ],
  [
    'a hand-in',
    ['table', join(top, 'demo/exercise/ada.handin.json')],
    /it is a hand-in, and a lesson is needed/,
  ],
  [
    'a circuit with storage',
    ['table', join(top, 'demo/lamp-chase.manege.json')],
    /no truth table: This sheet remembers/,
  ],
  ['an unknown format', ['table', demo, '--format', 'xls'], /xls/],
  ['an unknown verb', ['tabel', demo], /unknown command/],
  [
    'a place that cannot be written',
    ['table', demo, '--out', '/nowhere/t.csv'],
    /nowhere\/t\.csv: cannot be written/,
  ],
])('bad use ends with 2 and one clear line: %s', (_, words, expected) => {
  const { status, stderr } = manege(...words);
  expect(status).toBe(2);
  expect(stderr).toMatch(expected);
  expect(stderr.split('\n')[0]).toMatch(/^manege: /);
});

test('explains itself', () => {
  const { status, stdout } = manege('table', '--help');
  expect(status).toBe(0);
  expect(stdout).toContain('--sheet <name>');
});
