import { expose } from 'comlink';
import type { Read } from '@/core/formats/read-json';
import { type DumpedSignal, netsIn, readVcd } from '@/core/formats/vcd';

/** What a dump says of a circuit's nets. */
export type NetsInDump = ReturnType<typeof netsIn>;

const work = {
  /** Reads a dump, and of it only what the signals of a circuit are called. */
  read(text: string, signals: readonly DumpedSignal[]): Read<NetsInDump> {
    const read = readVcd(text);
    return read.ok ? { ok: true, value: netsIn(signals, read.value) } : read;
  },
};

export type VcdWork = typeof work;

expose(work);
