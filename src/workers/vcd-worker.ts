import { expose } from 'comlink';
import { type DumpedSignal, netsIn, readVcd } from '@/core/formats/vcd';
import type { Result } from '@/core/values/result';

/** What a dump says of a circuit's nets. */
export type NetsInDump = ReturnType<typeof netsIn>;

const work = {
  /** Reads a dump, and of it only what the signals of a circuit are called. */
  read(text: string, signals: readonly DumpedSignal[]): Result<NetsInDump> {
    const read = readVcd(text);
    return read.ok ? { ok: true, value: netsIn(signals, read.value) } : read;
  },
};

export type VcdWork = typeof work;

expose(work);
