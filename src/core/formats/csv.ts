import Papa from 'papaparse';
import type { Column, Netlist, Terminal } from '../netlist/netlist';
import type { Run } from '../simulate/run';
import { csvLine, unguarded } from '../values/csv';
import { type Logic, letterOf } from '../values/logic';
import { readWord } from '../values/radix';
import { done, type Result, refused } from '../values/result';

export const MOST_ROWS = 250_000;
export const MOST_COLUMNS = 4096;
/** Fields of a whole file; some 50 bytes each. */
export const MOST_FIELDS = 1_000_000;

/** Rows and columns of a CSV file (RFC 4180), blank lines left out; `lines` are their numbers in the file. */
export interface CsvRows {
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Reads CSV with a heading line. @param delimiter between the fields of a line. */
export function readCsv(text: string, delimiter: ',' | ';' = ','): Result<CsvRows> {
  const plain = text.replace(/^\uFEFF/, '');
  const options = { skipEmptyLines: 'greedy', delimiter } as const;
  const columns = Papa.parse<string[]>(plain, { ...options, preview: 1 }).data[0]?.length ?? 0;
  const most = Math.min(MOST_ROWS, Math.floor(MOST_FIELDS / Math.max(1, columns)));
  if (columns > MOST_COLUMNS) return refused('too-many-columns', `it has more than ${MOST_COLUMNS} columns`);
  // No more is parsed than what shows that it is too much.
  const parsed = Papa.parse<string[]>(plain, { ...options, preview: most + 2 });
  const bad = parsed.errors[0];
  if (bad)
    return refused('bad-csv', `row ${(bad.row ?? 0) + 1}: a quoted field is not closed as it should be`);
  const [heads, ...rows] = parsed.data;
  if (!heads) return refused('empty', 'it is empty; a heading line is expected');
  if (rows.length > most)
    return refused(
      'too-many-rows',
      `it has more than ${most} rows${most < MOST_ROWS ? ` of ${columns} fields` : ''}`,
    );
  for (const [i, row] of rows.entries())
    if (row.length !== heads.length)
      return refused(
        'uneven-rows',
        `row ${i + 2} has ${row.length} fields, and the heading has ${heads.length}`,
      );
  return done({ heads: heads.map((h) => unguarded(h.trim())), rows });
}

/** The changes at one time of a stimulus: nets and their new values. */
export interface StimulusRow {
  /** Ps. */
  readonly time: number;
  readonly changes: readonly (readonly [net: number, value: Logic])[];
}

/** Finds an input, or one bit of a bus, by the name of a column. */
export function inputNets(netlist: Netlist, name: string): readonly number[] | null {
  const whole = netlist.inputs.find((t: Terminal) => t.name === name);
  if (whole) return whole.nets;
  const bit = netlist.inputColumns.find((c: Column) => c.name === name);
  return bit ? bit.nets : null;
}

/**
 * Reads a stimulus: a column `time` in ns, and one for each input that is driven, which may be a bus (`a`) or one
 * of its bits (`a[3]`). A blank field leaves the input as it is.
 */
export function readStimulus(text: string, netlist: Netlist): Result<StimulusRow[]> {
  const csv = readCsv(text);
  if (!csv.ok) return csv;
  const { heads, rows } = csv.value;
  const timeAt = heads.findIndex((h) => h.toLowerCase() === 'time');
  if (timeAt === -1) return refused('no-time-column', 'there is no column “time” (in ns)');
  const columns: (readonly number[] | null)[] = [];
  for (const [i, head] of heads.entries()) {
    if (i === timeAt) {
      columns.push(null);
      continue;
    }
    const nets = inputNets(netlist, head);
    if (!nets) {
      const names = netlist.inputs.map((t) => t.name).join(', ') || 'none';
      return refused(
        'unknown-column',
        `column “${head}” is not an input of the circuit; its inputs are ${names}`,
      );
    }
    if (heads.indexOf(head) !== i) return refused('twice', `column “${head}” is there twice`);
    columns.push(nets);
  }
  const read: StimulusRow[] = [];
  for (const [r, row] of rows.entries()) {
    const said = row[timeAt]!.trim();
    const time = Math.round(Number(said) * 1000);
    if (said === '' || !Number.isFinite(time))
      return refused('bad-time', `row ${r + 2}: “${said}” is not a time in ns`);
    if (time < 0) return refused('bad-time', `row ${r + 2}: the time ${said} is negative`);
    if (read.length && time < read.at(-1)!.time)
      return refused('bad-time', `row ${r + 2}: the time ${said} is before that of the row above`);
    const changes: [number, Logic][] = [];
    for (const [c, nets] of columns.entries()) {
      const field = row[c]!.trim();
      if (!nets || field === '') continue;
      const bits = readWord(field, nets.length);
      if (!bits)
        return refused(
          'bad-value',
          `row ${r + 2}, column “${heads[c]}”: “${field}” is not a value of ${nets.length} ${nets.length === 1 ? 'bit' : 'bits'}`,
        );
      for (const [bit, net] of nets.entries()) changes.push([net, bits[bit]!]);
    }
    read.push({ time, changes });
  }
  return done(read);
}

/** The heading of samples: time, then every input and output bit in declared order. */
export function sampleHeading(netlist: Netlist): string {
  return csvLine(['time', ...[...netlist.inputColumns, ...netlist.outputColumns].map((c) => c.name)]);
}

/** One line of samples: the values of all inputs and outputs. @param time in ps. */
export function sampleLine({ netlist, values }: Run, time: number): string {
  let line = String(time / 1000);
  for (const columns of [netlist.inputColumns, netlist.outputColumns])
    for (const { nets } of columns) line += `,${letterOf(values[nets[0]] as Logic)}`;
  return line;
}
