import { expose } from 'comlink';
import { type DumpedSignal, netsIn, readVcd } from '@/core/formats/vcd';
import type { Result } from '@/core/values/result';

/** The changes of a circuit's nets in a dump. */
export type NetsInDump = ReturnType<typeof netsIn>;

const work = {
  /** Reads a dump, limited to the signals of a circuit. */
  read(text: string, signals: readonly DumpedSignal[]): Result<NetsInDump> {
    const read = readVcd(text);
    return read.ok ? { ok: true, value: netsIn(signals, read.value) } : read;
  },
};

export type VcdWork = typeof work;

expose(work);
