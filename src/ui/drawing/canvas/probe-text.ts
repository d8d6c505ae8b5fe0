import { isPinEnd } from '@/core/circuit/sheet';
import { pinsOf } from '@/core/drawing/geometry/placement';
import { spokenName } from '@/core/parts/catalogue';
import { type Logic, letterOf } from '@/core/values/logic';
import { wordText } from '@/core/values/radix';
import { netsTold } from '@/session/nets-told';
import type { Session } from '@/session/session';
import { netOf } from '@/session/spoken';
import type { Picked } from './pick';

/** The value of a wire or a pin at the moment: `Key: 1`, `Sum: 0101 = 5 = hex 5`. */
export function probeText(session: Session, at: Exclude<Picked, { is: 'part' }>): string | null {
  const { sheet, state } = session;
  const nets =
    at.is === 'wire'
      ? state.view.netsOfWire(at.wire)
      : isPinEnd(at.end)
        ? state.view.netsOfPin(at.end.part, at.end.port)
        : undefined;
  if (!nets || nets.length === 0 || state.rules.still) return null;
  const told = netsTold(state);
  if (told && nets.some((net) => !told.has(net))) return 'press to probe';
  const driver = netOf(sheet, at.is === 'wire' ? { wire: at.wire } : at.end)?.drivers[0];
  const alone = driver && pinsOf(driver.part).filter((p) => p.port.direction === 'out').length === 1;
  const name = !driver
    ? 'driven by nothing'
    : alone
      ? spokenName(driver.part)
      : `${spokenName(driver.part)} ${driver.port}`;
  return `${name}: ${valueText(nets.map((net) => (state.conflicts.has(net) ? 2 : (state.values[net] as Logic))))}`;
}

/** A value as bits and as numbers; a single bit is its letter. */
export function valueText(bits: readonly Logic[]): string {
  if (bits.length === 1) return letterOf(bits[0]!);
  const binary = wordText(bits, 'binary');
  if (bits.some((b) => b > 1)) return binary;
  const [unsigned, signed, hex] = (['unsigned', 'signed', 'hexadecimal'] as const).map((r) =>
    wordText(bits, r),
  );
  return [binary, unsigned, ...(signed !== unsigned ? [signed] : []), `hex ${hex}`].join(' = ');
}
