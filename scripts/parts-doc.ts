import { writeFileSync } from 'node:fs';
import type { Part } from '../src/core/circuit/sheet';
import { CATALOGUE } from '../src/core/parts/catalogue';
import { defaultParams } from '../src/core/parts/params';
import { templateOf } from '../src/core/parts/template';

/* `npm run parts` writes docs/parts.md from the catalogue. */

const cell = (text: string) => text.replaceAll('|', '\\|') || '–';

function row(kind: (typeof CATALOGUE)[number]): string {
  const params = defaultParams(kind);
  const part: Part = { id: 'p1', kind: kind.kind, at: { x: 0, y: 0 }, turn: 0, label: '', rank: 0, params };
  const { ports, gates } = templateOf(part);
  const named = (direction: string) =>
    ports
      .filter((p) => p.direction === direction)
      .map((p) => `\`${p.name}${p.width > 1 ? `[${p.width - 1}:0]` : ''}\``)
      .join(' ');
  const joined = [named('in') && `in ${named('in')}`, named('out') && `out ${named('out')}`, named('both')];
  const given = Object.entries(params).map(([name, value]) => `${name} ${JSON.stringify(value)}`);
  const delays = [...new Set(gates.filter((g) => g.delay).map((g) => g.delay!.rise / 1000))];
  return `| \`${kind.kind}\` | ${cell(kind.says)} | ${cell(joined.filter(Boolean).join('; '))} | ${cell(given.join(', '))} | ${cell(delays.join(', '))} |`;
}

const families = [...new Set(CATALOGUE.map((k) => k.family))];
const text = `# Parts

Written by \`npm run parts\` from the catalogue (\`src/core/parts/\`). Ports and delays are those of a part with the
parameters shown, which are the ones it has unless it is told otherwise. All delays are in ns.

${families
  .map(
    (family) =>
      `## ${family}\n\n| kind | what it does | ports | parameters | delay |\n|---|---|---|---|---|\n${CATALOGUE.filter(
        (k) => k.family === family,
      )
        .map(row)
        .join('\n')}`,
  )
  .join('\n\n')}

## Delays, and why these

They are our own, in the proportions of ordinary 5 V logic, and easy to add up in the head. An inverter is the quickest
(6). NAND and NOR are one stage (8); AND and OR are one with an inverter behind it (10); exclusive-or is two stages deep
(14). Each input past two costs a little (1; 3 for exclusive-or). A three-state buffer takes 12, also from its enable. A
flip-flop shows its state 15 after the edge; its data must stand still 8 before the edge and 2 after it, so that one
flip-flop may feed the next. What selects (multiplexer, decoder, encoder) takes 16, and 2 more for each further select bit.
Arithmetic takes 24 for four bits and 10 for each further group of four, as carry runs from group to group. A memory
takes 45 from address to data. A part made of many gates has its delay at its outputs; what is inside takes no time.

A part can have delays of its own: \`delayRise\` and \`delayFall\` in ps; storage also \`setup\` and \`hold\`. *Unit* delays
are 1 ns a part, whatever it is; with *zero* delays everything follows at once.

## Unknown, floating, and contradiction

A gate treats Z at an input as X. A value that decides a gate decides it beside X: 0 AND X is 0. A multiplexer with an
unknown select gives what both inputs agree on. Several drivers of a net resolve by the table of IEEE Std 1364: Z gives way,
0 against 1 is X. An SR latch or flip-flop that is set and reset at once is X. Where preset and clear are both active,
clear wins.

When data move within the setup or hold time of an edge, a real flip-flop takes the one value or the other. Here it takes
the wrong one: after a late change what was there before it, after an early one what came. So a run shows the worst that may
happen, and shows it each time. The violation is recorded with part, time and by how much it was missed.
`;
writeFileSync('docs/parts.md', text);
