import type { Part, Wire } from '../circuit/sheet';

/**
 * What is wrong inside a part, though it is drawn as if it were sound: its output is stuck, an input is inverted or open, two
 * inputs are exchanged, or it works as another kind of gate.
 */
export type PartFault =
  | { readonly is: 'stuck'; readonly at: 0 | 1 }
  | { readonly is: 'inverted'; readonly port: string }
  | { readonly is: 'open'; readonly port: string }
  | { readonly is: 'exchanged'; readonly ports: readonly [string, string] }
  | { readonly is: 'other'; readonly kind: string };

/** How a fault stands among a part's parameters: `stuck 0`, `inverted A`, `open B`, `exchanged A B`, `other nand`. */
export const FAULT_TEXT =
  /^(?:stuck [01]|(?:inverted|open) [A-Z][A-Za-z0-9]{0,7}|exchanged [A-Z][A-Za-z0-9]{0,7} [A-Z][A-Za-z0-9]{0,7}|other [a-z]{2,8})$/;

export function faultText(fault: PartFault): string {
  switch (fault.is) {
    case 'stuck':
      return `stuck ${fault.at}`;
    case 'inverted':
    case 'open':
      return `${fault.is} ${fault.port}`;
    case 'exchanged':
      return `exchanged ${fault.ports.join(' ')}`;
    case 'other':
      return `other ${fault.kind}`;
  }
}

/** The fault of a part, or null. */
export function faultOf({ params }: Pick<Part, 'params'>): PartFault | null {
  if (typeof params.fault !== 'string') return null;
  const [is, first, second] = params.fault.split(' ');
  switch (is) {
    case 'stuck':
      return { is, at: first === '1' ? 1 : 0 };
    case 'inverted':
    case 'open':
      return { is, port: first! };
    case 'exchanged':
      return { is, ports: [first!, second!] };
    case 'other':
      return { is, kind: first! };
    default:
      return null;
  }
}

/** The part with a fault, or without one. */
export function withFault(part: Part, fault: PartFault | null): Part {
  const { fault: _, ...sound } = part.params;
  return { ...part, params: fault ? { ...sound, fault: faultText(fault) } : sound };
}

/** What is wrong with a wire: it does not reach its second end, or touches another wire. */
export type WireFault = { readonly is: 'cut' } | { readonly is: 'tied'; readonly to: string };

/** The fault of a wire, or null. */
export function wireFaultOf({ fault }: Pick<Wire, 'fault'>): WireFault | null {
  if (fault === undefined) return null;
  return fault === 'cut' ? { is: 'cut' } : { is: 'tied', to: fault.slice('tied '.length) };
}

/** The wire with a fault, or without one. */
export function withWireFault(wire: Wire, fault: WireFault | null): Wire {
  const { fault: _, ...sound } = wire;
  return fault ? { ...sound, fault: fault.is === 'cut' ? 'cut' : `tied ${fault.to}` } : sound;
}
