import type { Part } from '../circuit/sheet';
import type { LogicFamily } from '../parts/packages/package-type';
import { type CellBuilder, CONTROLS, type Signal } from './cell-builder';

/** The edge on which a family's JK flip-flops change. */
const JK_EDGE = { '74HC': 'falling', '74LS': 'falling', '4000B': 'rising' } as const;

/** A control of a flip-flop that the drawing has, as a signal that acts at 1. */
function acting(
  build: CellBuilder,
  path: string,
  part: Part,
  param: string,
  pin: Signal,
): Signal | undefined {
  const active = part.params[param];
  if (active === 'high') return pin;
  return active === 'low' ? build.inverse(path, pin) : undefined;
}

/**
 * The flip-flop of a package for one that is drawn, and the gates before it: D as it is; JK as it is; T and SR as a JK; an
 * enable by gates. False for parts that are none.
 */
export function flipFlopOf(
  build: CellBuilder,
  path: string,
  part: Part,
  pin: (port: string) => Signal,
  family: LogicFamily,
): boolean {
  const { kind, params } = part;
  if (kind !== 'dff' && kind !== 'jkff' && kind !== 'tff' && kind !== 'srff') return false;
  // Two inverters in a row, from an active-low control to a package's, are none.
  const names = CONTROLS[family];
  const control = (param: 'preset' | 'clear', port: string): Signal => {
    if (params[param] === 'low' && names.acts === 0) return pin(port);
    return build.control(path, acting(build, path, part, param, pin(port)));
  };
  const controls = { [names.preset]: control('preset', 'PRE'), [names.clear]: control('clear', 'CLR') };
  const outputs = { Q: pin('Q'), "Q'": pin("Q'") };
  const clock = (edge: 'rising' | 'falling') =>
    params.edge === edge ? pin('C') : build.inverse(path, pin('C'));
  const hasEnable = params.enable === 'yes';
  if (kind === 'dff') {
    let data = pin('D');
    if (hasEnable) {
      data = build.net();
      build.choose(path, [pin('EN'), pin('Q'), pin('D')], data);
    }
    build.unit(path, 'dff', { D: data, CLK: clock('rising'), ...controls, ...outputs });
    return true;
  }
  const gated = (signal: Signal): Signal => {
    if (!hasEnable) return signal;
    const made = build.net();
    build.gate(path, 'and', [signal, pin('EN')], made, false);
    return made;
  };
  const [set, reset] =
    kind === 'tff' ? [pin('T'), pin('T')] : kind === 'srff' ? [pin('S'), pin('R')] : [pin('J'), pin('K')];
  const j = gated(set);
  const k = set === reset ? j : gated(reset);
  build.unit(path, 'jkff', { J: j, K: k, CLK: clock(JK_EDGE[family]), ...controls, ...outputs });
  return true;
}
