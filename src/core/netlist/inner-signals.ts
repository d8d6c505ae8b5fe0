import type { Sheet } from '../circuit/sheet';
import { terminalName } from './declared';
import type { SheetNets, Terminal } from './netlist';
import { wiringOf } from './sheet-wiring';

/**
 * The signals within a sheet that people would look for by name, though no lamp shows them: the first output of each part
 * that stores or has a label, and each label that joins wires, once.
 * @param nets the nets of this sheet.
 */
export function innerSignals(sheet: Sheet, nets: SheetNets): Terminal[] {
  const { parts, templates } = wiringOf(sheet);
  const joined = new Set<string>();
  return parts.flatMap((part, i): Terminal[] => {
    const { kind, ports, role } = templates[i]!;
    if (role || kind.isNote || (part.label === '' && !kind.stores)) return [];
    if (kind.joinsByLabel && joined.has(part.label)) return [];
    const port = kind.joinsByLabel ? ports[0] : ports.find((p) => p.direction === 'out');
    const own = port && nets.netsOfPin(part.id, port.name);
    if (!own || own.length === 0) return [];
    if (kind.joinsByLabel) joined.add(part.label);
    return [{ part: part.id, name: terminalName(part), nets: own }];
  });
}
