import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';

const top = join(__dirname, '..');
const demo = join(top, 'demo', 'drive-interlock.manege.json');
const folder = mkdtempSync(join(tmpdir(), 'manege-'));

/** Counts while it is enabled; its bits are handed out as a bus. */
const COUNTER = `
module counter(input clk, en, output reg [1:0] q);
  always @(posedge clk) if (en) q <= #5 {q[1] ^ q[0], ~q[0]};
endmodule
`;

function manege(...words: string[]) {
  const { status, stdout, stderr } = spawnSync(join(top, 'manege'), words, { encoding: 'utf8' });
  return { status, stdout, stderr };
}

const file = (name: string, text: string): string => fileOf(name, Buffer.from(text));

function fileOf(name: string, bytes: Buffer): string {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

const counter = file('counter.v', COUNTER);

test('prints the table of the interlock as CSV', () => {
  const { status, stdout } = manege('table', demo, '--format', 'csv');
  expect(status).toBe(0);
  expect(stdout.split('\n').slice(0, 3)).toEqual(['Key,Bars,Clear,Drive,Warn', '0,0,0,0,0', '0,0,1,0,0']);
  expect(stdout.split('\n')).toHaveLength(10);
});

test('counts the ones of a table without writing it, as many as there are in it', () => {
  const own = manege('table', demo, '--format', 'none', '--stats');
  expect([own.status, own.stdout]).toEqual([0, '']);
  const { ones } = JSON.parse(own.stderr.trim().split('\n').at(-1)!);
  expect(ones).toEqual({ Drive: 1, Warn: 2 });
  const wide = file(
    'wide.v',
    `module wide(input [13:0] a, output y, z); assign y = &a; assign z = ^a; endmodule`,
  );
  const counted = JSON.parse(
    manege('table', wide, '--format', 'none', '--stats').stderr.trim().split('\n').at(-1)!,
  );
  expect(counted).toMatchObject({ rows: 2 ** 14, ones: { y: 1, z: 2 ** 13 } });
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
  ['a wrong ending', ['table', join(top, 'README.md')], /a lesson .* is needed/],
  ['an unknown sheet', ['table', demo, '--sheet', 'Cellar'], /no sheet “Cellar”; it has “Drive interlock”/],
  [
    'a broken file',
    ['table', file('broken.manege.json', '{"format"')],
    /broken\.manege\.json: it is not JSON/,
  ],
  [
    'a hand-in',
    ['table', join(top, 'demo/exercise/ada.handin.json')],
    /it is a hand-in, and a lesson, Verilog or a netlist is needed/,
  ],
  [
    'an unknown sheet of Verilog',
    ['table', counter, '--module', 'cellar'],
    /there is no module cellar; it has counter/,
  ],
  [
    'Verilog that is none',
    ['inspect', file('bad.v', 'module t(\n  input 3a);')],
    /bad\.v: line 2, column 9: the name of a port is expected/,
  ],
  [
    'a stimulus that is not there',
    ['simulate', counter, '--stimulus', '/nowhere.csv'],
    /nowhere\.csv: there is no such file/,
  ],
  [
    'a stimulus with a wrong ending',
    ['simulate', counter, '--stimulus', demo],
    /a stimulus is CSV \(\*\.csv\) or a value change dump/,
  ],
  [
    'a stimulus for an unknown input',
    ['simulate', counter, '--stimulus', file('u.csv', 'time,door\n0,1\n')],
    /u\.csv: column “door” is not an input of the circuit; its inputs are clk, en/,
  ],
  [
    'a stimulus without time',
    ['simulate', counter, '--stimulus', file('n.csv', 'clk\n0\n')],
    /n\.csv: there is no column “time”/,
  ],
  [
    'a negative time in a stimulus',
    ['simulate', counter, '--stimulus', file('m.csv', 'time,clk\n-5,1\n')],
    /m\.csv: row 2: the time -5 is negative/,
  ],
  [
    'times that run back',
    ['simulate', counter, '--stimulus', file('b.csv', 'time,clk\n5,1\n4,0\n')],
    /b\.csv: row 3: the time 4 is before/,
  ],
  [
    'a value that does not fit',
    ['simulate', counter, '--stimulus', file('v.csv', 'time,clk\n5,2\n')],
    /row 2, column “clk”: “2” is not a value of 1 bit/,
  ],
  ['a negative end', ['simulate', counter, '--until', '-1'], /--until -1: the time is negative/],
  ['an end that is no time', ['simulate', counter, '--until', 'soon'], /--until soon: a time is needed/],
  ['an unknown setting of delays', ['simulate', counter, '--delays', 'some'], /some/],
  [
    'a file to convert into that has no known ending',
    ['convert', counter, join(folder, 'x.png')],
    /x\.png: the ending says what to write/,
  ],
  [
    'a packed file that is none',
    ['table', file('none.v.gz', 'module m; endmodule')],
    /none\.v\.gz: it is not packed as its name says/,
  ],
  [
    'a packed file that was cut short',
    ['table', fileOf('cut.v.gz', gzipSync(COUNTER).subarray(0, 60))],
    /cut\.v\.gz: it is not packed as its name says \(gzip\), or was cut short/,
  ],
  [
    'a packed file that unpacks to too much',
    ['table', fileOf('bomb.v.gz', gzipSync(' '.repeat(21 * 1024 * 1024)))],
    /bomb\.v\.gz: it unpacks to more than 20\.0 MB, the most of a file/,
  ],
  [
    'a packed file in no known format',
    ['table', fileOf('x.doc.gz', gzipSync('x'))],
    /x\.doc\.gz: a lesson .* is needed/,
  ],
  ['a module of a lesson', ['inspect', demo, '--module', 'x'], /--module is for Verilog/],
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

test('a circuit with storage has a table of next states', () => {
  const { status, stdout } = manege('table', counter);
  expect(status).toBe(0);
  expect(stdout.split('\n').slice(0, 4)).toEqual([
    'q[1],q[0],en,q[1]+,q[0]+,q[1],q[0]',
    '0,0,0,0,0,0,0',
    '0,0,1,0,1,0,0',
    '0,1,0,0,1,0,1',
  ]);
});

test('simulates on a stimulus: samples just before each next row, a dump, and what it did', () => {
  const stimulus = file('count.csv', 'time,en,clk\n0,1,0\n10,,1\n20,,0\n30,,1\n33,,\n40,0,0\n50,,1\n');
  const [samples, dump] = [join(folder, 'samples.csv'), join(folder, 'count.vcd')];
  const { status, stdout, stderr } = manege(
    'simulate',
    counter,
    '--stimulus',
    stimulus,
    '--samples',
    samples,
    '--vcd',
    dump,
    '--stats',
  );
  expect([status, stdout]).toEqual([0, '']);
  expect(readFileSync(samples, 'utf8')).toBe(
    'time,clk,en,q[1],q[0]\n0,0,1,0,0\n10,1,1,0,1\n20,0,1,0,1\n30,1,1,0,1\n33,1,1,1,0\n40,0,0,1,0\n50,1,0,1,0\n',
  );
  expect(JSON.parse(stderr.trim().split('\n').at(-1)!)).toMatchObject({ rows: 7, violations: 0 });
  const text = readFileSync(dump, 'utf8');
  expect(text).toContain('$var wire 2 # q [1:0] $end');
  expect(text).toContain('#35000\nb10 #');
  // The dump drives the circuit as the stimulus did.
  const again = manege('simulate', counter, '--stimulus', dump, '--samples', join(folder, 'again.csv'));
  expect(again.status).toBe(0);
  expect(readFileSync(join(folder, 'again.csv'), 'utf8').trim().split('\n').at(-1)).toBe('50,1,0,1,0');
});

test('inspects: parts, levels, the slowest way, the shortest clock period', () => {
  const chain = file(
    'chain.v',
    'module chain(input a, b, output y); wire m; and #(10, 8) g1(m, a, b); not #6 g2(y, m); endmodule',
  );
  expect(JSON.parse(manege('inspect', chain).stdout)).toMatchObject({
    gates: { and: 1, not: 1 },
    levels: 2,
    slowestPath: { delayPs: 16_000, through: ['g1', 'g2'] },
    shortestClockPs: null,
    diagnostics: [],
  });
  const latch = file(
    'latch.v',
    'module l(input s, r, output q); nor(q, r, n); nor(n, s, q); nand(z, s); endmodule',
  );
  const { diagnostics } = JSON.parse(manege('inspect', latch).stdout) as { diagnostics: { code: string }[] };
  expect(diagnostics.map((d) => d.code)).toEqual(['loop']);
});

test('converts a lesson to Verilog and back, and to a picture; its table stays the same', () => {
  const [verilog, lesson, picture] = ['c.v', 'c.manege.json', 'c.svg'].map((n) => join(folder, n)) as [
    string,
    string,
    string,
  ];
  expect(manege('convert', demo, verilog).status).toBe(0);
  expect(manege('convert', verilog, lesson).status).toBe(0);
  expect(manege('table', lesson).stdout).toBe(manege('table', demo).stdout);
  expect(manege('convert', lesson, picture).status).toBe(0);
  expect(readFileSync(picture, 'utf8')).toMatch(/^<svg [^>]*viewBox="[^"]+"[\s\S]*>Drive<[\s\S]*<\/svg>\n$/);
});

test('what ends in .gz is packed and unpacked on the way', () => {
  const [verilog, lesson] = [join(folder, 'p.v.gz'), join(folder, 'p.manege.json.gz')];
  expect(manege('convert', demo, verilog).status).toBe(0);
  expect(gunzipSync(readFileSync(verilog)).toString()).toMatch(/^module \w+[\s\S]*endmodule\n$/m);
  expect(manege('convert', verilog, lesson).status).toBe(0);
  expect(JSON.parse(gunzipSync(readFileSync(lesson)).toString())).toMatchObject({ format: 'manege-lesson' });
  expect(manege('table', lesson).stdout).toBe(manege('table', demo).stdout);
  const [stimulus, dump] = [join(folder, 'p.csv.gz'), join(folder, 'p.vcd.gz')];
  writeFileSync(stimulus, gzipSync('time,en,clk\n0,1,0\n10,,1\n20,,0\n'));
  expect(manege('simulate', counter, '--stimulus', stimulus, '--vcd', dump).status).toBe(0);
  expect(manege('simulate', counter, '--stimulus', dump, '--compare', dump).status).toBe(0);
});

test('a run is held against a dump', () => {
  const stimulus = file('short.csv', 'time,en,clk\n0,1,0\n10,,1\n20,,0\n30,,1\n');
  const dump = join(folder, 'short.vcd');
  manege('simulate', counter, '--stimulus', stimulus, '--vcd', dump);
  const same = manege('simulate', counter, '--stimulus', stimulus, '--compare', dump);
  expect([same.status, same.stdout]).toEqual([0, expect.stringMatching(/^the same in \d+ signals\n$/)]);
  const other = manege('simulate', counter, '--stimulus', stimulus, '--delays', 'zero', '--compare', dump);
  expect([other.status, other.stdout.split('\n')[0]]).toEqual([
    1,
    expect.stringMatching(/^different: counter\.q at 10 ns is 01 here and 00 in /),
  ]);
});

test('proves two circuits the same, or shows the row at which they are not', () => {
  const out = join(folder, 'interlock-nand.manege.json');
  const table = join(folder, 'interlock.csv');
  expect(manege('table', demo, '--out', table).status).toBe(0);
  expect(
    manege('draw', table, '--inputs', 'Key,Bars,Clear', '--form', 'nand', '--two-input', '--out', out).status,
  ).toBe(0);
  expect(manege('prove', demo, out)).toMatchObject({ status: 0, stdout: 'equivalent: proved by all rows\n' });
  const wrong = file('wrong.csv', readFileSync(table, 'utf8').replace('1,1,0,0,0', '1,1,0,1,0'));
  expect(manege('draw', wrong, '--inputs', 'Key,Bars,Clear', '--out', out).status).toBe(0);
  const { status, stdout } = manege('prove', demo, out, '--format', 'json');
  expect(status).toBe(1);
  expect(JSON.parse(stdout)).toEqual({
    verdict: 'different',
    method: 'all rows',
    inputs: { Key: 1, Bars: 1, Clear: 0 },
    outputs: { a: { Drive: '0', Warn: '0' }, b: { Drive: '1', Warn: '0' } },
  });
});

test('a sequence of clocks shows where two counters part', () => {
  const other = file('slow.v', COUNTER.replace('{q[1] ^ q[0], ~q[0]}', '{q[1] | q[0], ~q[0]}'));
  const { status, stdout } = manege('prove', counter, other, '--format', 'json', '--stats');
  expect(status).toBe(1);
  const proof = JSON.parse(stdout);
  expect(proof.verdict).toBe('different');
  expect(proof.inputs.map((row: { en: number }) => row.en)).toEqual([1, 1, 1, 1, 0]);
  expect(manege('prove', counter, counter).stdout).toBe(
    'equivalent: proved by all states from power-up (4)\n',
  );
});

test('reduces formulas and tables', () => {
  expect(manege('reduce', "Y = A'B + AB + C; Z = A ^ A").stdout).toBe('Y = B + C\nZ = 0\n');
  const table = file(
    'd.csv',
    'A,B,C,=,Y\n0,0,0,,1\n0,0,1,,-\n0,1,0,,1\n0,1,1,,\n1,0,0,,0\n1,0,1,,0\n1,1,0,,0\n1,1,1,,1\n',
  );
  const { stdout, stderr } = manege('reduce', table, '--format', 'json', '--stats', '--notation', 'verilog');
  expect(JSON.parse(stdout)).toEqual([
    { name: 'Y', expression: '~A | B & C', terms: 2, literals: 3, exact: true, least: 2 },
  ]);
  expect(JSON.parse(stderr)).toMatchObject({ rows: 8 });
  const product = manege('reduce', "A'B'C", '--form', 'pos', '--format', 'json');
  expect(JSON.parse(product.stdout)).toMatchObject([{ terms: 3, literals: 3 }]);
  expect(manege('reduce', 'A B + A C', '--form', 'pos', '--notation', 'words').stdout).toBe(
    'Y = A and (B or C)\n',
  );
});

test.each<[string, string[], RegExp]>([
  [
    'a formula that is not closed',
    ['reduce', 'A + (B'],
    /A \+ \(B: character 5: this parenthesis is never closed/,
  ],
  [
    'a name that is not among the inputs',
    ['reduce', 'A + Q', '--inputs', 'A,B'],
    /Q is not among --inputs A,B/,
  ],
  [
    'a ragged table',
    ['reduce', file('r.csv', 'A,B,Y\n0,1\n')],
    /r\.csv: row 1 has 2 cells where there are 3 names/,
  ],
  [
    'too many inputs',
    ['reduce', Array.from({ length: 27 }, (_, i) => `n${i}`).join(' + ')],
    /has at most 16 inputs/,
  ],
  [
    'an ending that says nothing',
    ['draw', 'A + B', '--out', join(folder, 'x.txt')],
    /the ending says what to write/,
  ],
  ['ports that do not match', ['prove', demo, counter], /they cannot be compared: their inputs differ/],
])('bad use of functions ends with 2 and one clear line: %s', (_, words, expected) => {
  const { status, stderr } = manege(...words);
  expect(status).toBe(2);
  expect(stderr).toMatch(expected);
});

test('marks hand-ins as the marking page does', () => {
  const exercise = join(top, 'demo/exercise/warning-lamp.exercise.json');
  const [ada, ben] = ['ada', 'ben'].map((name) => join(top, `demo/exercise/${name}.handin.json`));
  const csv = join(folder, 'marks.csv');
  expect(manege('mark', exercise, ada!, ben!, '--csv', csv)).toMatchObject({
    status: 1,
    stdout:
      'Ada Sample: solved; 8 of 8 rows; 2 AND, 1 NOT\nBen Sample: not solved; 7 of 8 rows; 3 AND, 1 NOT; wrong: row 6 (Warn)\n',
  });
  expect(readFileSync(csv, 'utf8').split('\r\n')[2]).toMatch(
    /^Ben Sample,7,8,"3 AND, 1 NOT",0,0,.*,row 6 \(Warn\)$/,
  );
  expect(manege('mark', exercise, ada!).status).toBe(0);
  const wrong = manege('mark', demo, ada!);
  expect([wrong.status, wrong.stderr]).toEqual([2, expect.stringContaining('an exercise is needed here')]);
  expect(manege('mark', exercise, demo).status).toBe(2);
});

test('a class is marked whole: who is missing, what goes back to each, which are alike, and what cannot be marked', () => {
  const exercise = join(top, 'demo/exercise/warning-lamp.exercise.json');
  const files = ['ada', 'ben', 'cleo'].map((name) => join(top, `demo/exercise/${name}.handin.json`));
  const [list, back, likeness, csv] = ['list.csv', 'back', 'likeness.csv', 'class.csv'].map((n) =>
    join(folder, n),
  ) as [string, string, string, string];
  writeFileSync(list, 'name;number;group\nSample Ada;7;a\nDana Sample;9;b\n');
  const broken = join(folder, 'broken.handin.json');
  writeFileSync(broken, readFileSync(files[0]!, 'utf8').slice(0, 900));
  const options = ['--class', list, '--back', back, '--likeness', likeness, '--csv', csv];
  const { status, stdout, stderr } = manege('mark', exercise, ...files, files[0]!, broken, ...options);
  expect(status).toBe(2);
  expect(stdout.match(/^Ada Sample: solved/gm)).toHaveLength(1);
  expect(stdout).toContain('Dana Sample: nothing handed in\n');
  expect(stderr).toContain('broken.handin.json: it is not JSON, or was cut short');
  expect(stderr).toContain('Ben Sample is not in the class list');
  expect(readFileSync(csv, 'utf8')).toMatch(/^Ada Sample,7,a,/m);
  // Of three nobody can tell.
  expect(readFileSync(likeness, 'utf8')).toBe('one,other,bits,for,against\r\n');
  expect(readdirSync(back)).toEqual([
    '001-Ada-Sample.returned.json',
    '002-Ben-Sample.returned.json',
    '003-Cleo-Sample.returned.json',
  ]);
  const ben = JSON.parse(readFileSync(join(back, '002-Ben-Sample.returned.json'), 'utf8'));
  expect(ben).toMatchObject({ format: 'manege-returned', name: 'Ben Sample' });
  expect(JSON.stringify(ben)).not.toContain('Ada');
});

/** Runs a line of the shell; `$M` is the command. */
function shell(line: string) {
  const M = join(top, 'manege');
  const { status, stdout, stderr } = spawnSync('bash', ['-c', line], {
    encoding: 'utf8',
    env: { ...process.env, M, D: demo, F: folder },
  });
  return { status, stdout, stderr };
}

describe('what is written arrives, or it is said', () => {
  const full = join(folder, 'full.v');
  symlinkSync('/dev/full', full);

  test.each([
    ['on the terminal', '$M table $D > /dev/full', 'output'],
    ['the help', '$M --help > /dev/full', 'output'],
    ['a table', '$M table $D --out /dev/full', '/dev/full'],
    ['a circuit in another format', '$M convert $D $F/full.v', full],
    ['a drawn circuit', '$M draw "Y = A B" --out $F/full.v', full],
    ['a dump', '$M simulate $D --vcd /dev/full', '/dev/full'],
  ])('a full disk: %s', (_, line, out) => {
    expect(shell(line)).toEqual({
      status: 2,
      stdout: '',
      stderr: `manege: ${out}: cannot be written (the disk is full)\n`,
    });
  });

  test('a closed terminal is no success', () => {
    expect(shell('$M table $D >&-')).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/it is closed/),
    });
  });

  test('a folder that is not there, or that is the file, is named', () => {
    expect(manege('table', demo, '--out', join(folder, 'none', 'a.csv')).stderr).toMatch(
      /its folder does not exist/,
    );
    expect(manege('table', demo, '--out', folder).stderr).toMatch(/it is a folder/);
  });

  test('a file that was there stays whole where writing fails, and nothing is left beside it', () => {
    const out = file('kept.v', 'as it was');
    expect(manege('convert', join(folder, 'missing.v'), out).status).toBe(2);
    expect(readFileSync(out, 'utf8')).toBe('as it was');
    expect(manege('convert', demo, out).status).toBe(0);
    expect(readFileSync(out, 'utf8')).toContain('module');
    expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toEqual([]);
  });

  test('a pipe whose reader has seen enough keeps the exit code', () => {
    const { stdout } = shell(
      `$M mark ${join(top, 'demo/exercise/warning-lamp.exercise.json')} ${join(top, 'demo/exercise/ben.handin.json')} | true; echo \${PIPESTATUS[0]}`,
    );
    expect(stdout).toBe('1\n');
    expect(shell(`$M table $D | head -1; echo \${PIPESTATUS[0]}`).stdout).toBe(
      'Key,Bars,Clear,Drive,Warn\n0\n',
    );
  });

  test('who closes stderr still gets the exit code', () => {
    expect(shell('$M table nothing.v 2>&-').status).toBe(2);
    expect(shell('$M table nothing.v 2> >(true)').status).toBe(2);
  });

  test('a circuit may come through a pipe', () => {
    const { stdout } = shell(
      '$M convert $D $F/in.v && mkfifo $F/pipe.v && (cat $F/in.v > $F/pipe.v & $M table $F/pipe.v)',
    );
    expect(stdout.split('\n')[0]).toBe('Key,Bars,Clear,Drive,Warn');
  });
});

test('a name cannot forge a line of the marks, nor act on the terminal', () => {
  const mine = JSON.parse(readFileSync(join(top, 'demo/exercise/ben.handin.json'), 'utf8'));
  const forged = file(
    'forged.handin.json',
    JSON.stringify({ ...mine, name: 'Ben\nAda Sample: solved\u001b[2K\u202e' }),
  );
  const { stdout } = manege('mark', join(top, 'demo/exercise/warning-lamp.exercise.json'), forged);
  expect(stdout.split('\n')).toHaveLength(2);
  expect(stdout).toMatch(/^Ben\\nAda Sample: solved\\x1b\[2K\\u202e: not solved/);
});

test('a message does not repeat a formula of any length', () => {
  const { status, stderr } = manege('reduce', `Y = ${'('.repeat(50_000)}A`);
  expect(status).toBe(2);
  expect(stderr.length).toBeLessThan(700);
  expect(stderr).toMatch(/this goes too deep\n$/);
});

test('a run that would never end is ended, and says where', () => {
  const swinging = file('swinging.v', 'module m(output y); wire w; not #1 (w, w); assign y = w; endmodule');
  const { status, stderr } = manege('simulate', swinging, '--until', '1e300', '--most-steps', '1000');
  expect(status).toBe(2);
  expect(stderr).toMatch(
    /the run has made 1000 steps up to \d+ ns, and is ended there: see --until and --most-steps/,
  );
  expect(manege('simulate', swinging, '--most-steps', 'many').stderr).toMatch(
    /a whole number above 0 is needed/,
  );
});

test('a circuit whose blocks hold each other is not written as Verilog', () => {
  const block = (id: string, sheet: string) => ({
    id,
    kind: 'block',
    at: { x: 0, y: 0 },
    params: { sheet, title: sheet, inputs: '', outputs: '' },
  });
  const cycle = file(
    'cycle.manege.json',
    JSON.stringify({
      format: 'manege-lesson',
      version: JSON.parse(readFileSync(demo, 'utf8')).version,
      id: 'cycle',
      title: 'Cycle',
      sheets: [
        { id: 'a', name: 'Gate', parts: [block('x', 'b')], wires: [] },
        { id: 'b', name: 'Bars', parts: [block('y', 'a')], wires: [] },
      ],
    }),
  );
  const { status, stderr } = manege('convert', cycle, join(folder, 'cycle.v'));
  expect([status, stderr]).toEqual([
    2,
    `manege: ${cycle}: a module cannot hold itself: “Gate” holds “Bars” holds “Gate”. Take one of these blocks away\n`,
  ]);
});

describe('chips', () => {
  test('gives packages, units with pins, and wires of the interlock', () => {
    const { status, stdout, stderr } = manege('chips', demo, '--stats');
    expect(status).toBe(0);
    const plan = JSON.parse(stdout);
    expect(plan.packages.map((one: { type: string }) => one.type).sort()).toEqual([
      '74HC04',
      '74HC08',
      '74HC11',
    ]);
    expect(plan).toMatchObject({ proof: 'smallest', atLeast: 3, lacking: {}, unplaced: [] });
    const inverter = plan.packages.find((one: { type: string }) => one.type === '74HC04');
    expect(inverter.units).toHaveLength(1);
    const [[a, y]] = inverter.units.map((unit: { pins: Record<string, number> }) => [
      unit.pins.A,
      unit.pins.Y,
    ]);
    expect([
      [1, 2],
      [3, 4],
      [5, 6],
      [9, 8],
      [11, 10],
      [13, 12],
    ]).toContainEqual([a, y]);
    expect(plan.terminals.map((one: { label: string }) => one.label)).toEqual([
      'Key',
      'Bars',
      'Clear',
      'Drive',
      'Warn',
    ]);
    expect(plan.wires[0]).toMatchObject({ from: '+', to: 'U1.14', net: '+', stage: 0 });
    expect(plan.spares).toHaveLength(10);
    expect(JSON.parse(stderr)).toMatchObject({ packages: 3, wires: plan.wires.length });
  });

  test('keeps to the drawer, and tells what is lacking', () => {
    const stock = file('stock.csv', 'type,count\n7400,2\n74HC10,1\n');
    const { status, stdout } = manege('chips', demo, '--stock', stock, '--fewest');
    expect(status).toBe(0);
    for (const { type } of JSON.parse(stdout).packages) expect(['74HC00', '74HC10']).toContain(type);
    const none = manege('chips', demo, '--stock', file('few.csv', '1 x 08\n'));
    expect(none.status).toBe(1);
    expect(Object.keys(JSON.parse(none.stdout).lacking).length).toBeGreaterThan(0);
  });

  test('plans as it is set on the sheet, where no option says otherwise', () => {
    const lesson = JSON.parse(readFileSync(demo, 'utf8'));
    lesson.sheets[0].chips = { family: '4000B' };
    const own = file('own.manege.json', JSON.stringify(lesson));
    const types = (...more: string[]) =>
      JSON.parse(manege('chips', own, ...more).stdout).packages.map((one: { type: string }) => one.type);
    expect(types().sort()).toEqual(['4069', '4073', '4081']);
    expect(types('--family', '74')).toContain('74HC08');
  });

  test('writes the lists as Markdown and CSV, in the 4000 series as well', () => {
    const { stdout } = manege('chips', demo, '--family', '4000', '--format', 'md');
    expect(stdout).toMatch(/\| 1 \| 4069 \|/);
    expect(stdout).toMatch(/## Stage 1/);
    expect(manege('chips', demo, '--format', 'csv').stdout).toMatch(/^count,part,where\n/);
  });

  test.each([
    ['type,count\n7499,1\n', /row 2: the catalogue has no 7499/],
    ['type,count\n7408,many\n', /row 2: “many” is no number of packages/],
    ['name\n7408\n', /a column called type and one called count/],
  ])('a stock that cannot be read is refused: %j', (text, reason) => {
    const { status, stderr } = manege('chips', demo, '--stock', file('bad-stock.csv', text));
    expect([status, stderr]).toEqual([2, expect.stringMatching(reason)]);
  });
});
