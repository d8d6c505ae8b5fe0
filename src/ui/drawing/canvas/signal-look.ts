import { ONE, X, Z, ZERO } from '@/core/values/logic';
import type { Palette } from '@/ui/controls/palette';
import type { Signal } from './scene';

/** In the order in which they are painted: what is above the others comes last. */
export const SIGNALS = ['dark', ZERO, Z, X, ONE, 'bus', 'conflict'] as const satisfies readonly Signal[];

export function signalColour(signal: Signal, palette: Palette): string {
  switch (signal) {
    case ZERO:
      return palette.zero;
    case ONE:
      return palette.one;
    case X:
      return palette.unknown;
    case Z:
      return palette.undriven;
    case 'dark':
      return palette.quiet;
    case 'bus':
      return palette.ink;
    default:
      return palette.conflict;
  }
}
