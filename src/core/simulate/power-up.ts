import { type Netlist, sourceKey, storeName } from '../netlist/netlist';
import { ONE, X, Z, ZERO } from '../values/logic';
import { outputOf } from './plain-engine';
import type { RunOptions } from './run-options';
import { levelAt } from './timed-sources';

const MOST_SWEEPS = 8;

/** Everything at rest at the starting time, whatever the delays; time then runs from there. */
export function valuesAtPowerUp(netlist: Netlist, options: RunOptions, time: number): Uint8Array {
  const values = new Uint8Array(netlist.nets).fill(Z);
  const usual = options.powerUp ?? ZERO;
  for (const g of netlist.looped) values[netlist.out[g]!] = usual;
  for (const [i, g] of netlist.storage.entries()) {
    const own = netlist.stores[i]!.powerUp ?? 'lesson';
    const held = options.held?.get(storeName(netlist, i));
    values[netlist.out[g]!] = held ?? (own === 'lesson' ? usual : own === 'X' ? X : own === '1' ? ONE : ZERO);
  }
  for (const s of netlist.sources) {
    if (s.kind === 'constant') values[s.net] = s.value;
    else if (s.kind === 'clock' || s.kind === 'stimulus') values[s.net] = levelAt(s, time).value;
    else values[s.net] = options.inputs?.get(sourceKey(s)) ?? ZERO;
  }
  for (const g of netlist.order) values[netlist.out[g]!] = outputOf(netlist, g, values);
  wakeLoops(netlist, values);
  return values;
}

/**
 * No two gates of a loop wake in the very same instant: taken one after the other, a latch falls into one of
 * its states, and a ring begins with a single wave.
 */
function wakeLoops(netlist: Netlist, values: Uint8Array): void {
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let changed = false;
    for (const g of netlist.looped) {
      const value = outputOf(netlist, g, values);
      changed ||= values[netlist.out[g]!] !== value;
      values[netlist.out[g]!] = value;
    }
    if (!changed) return;
  }
}
