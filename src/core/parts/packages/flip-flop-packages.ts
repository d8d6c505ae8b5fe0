import { Primitive } from '../primitive';
import { choose, not, or } from '../words';
import { definePackage, type PackageType, type UnitBuilder } from './package-type';

/** Shows a stored bit and its complement; with preset and clear both acting, both outputs are 1. */
function showBoth(u: UnitBuilder, state: number, preset?: number, clear?: number): void {
  u.show('Q', preset === undefined ? state : or(u.b, state, preset));
  const inverse = not(u.b, state);
  u.show("Q'", clear === undefined ? inverse : or(u.b, inverse, clear));
}

/** J sets, K resets, both change the state. */
function jkNext(u: UnitBuilder, state: number): number {
  const [j, k] = [u.pin('J'), u.pin('K')];
  return choose(u.b, state, [j], [not(u.b, k)])[0]!;
}

const dualD74 = definePackage(
  {
    number: '74',
    says: 'Two D flip-flops on the rising edge, each with preset and clear.',
    pins: "1CLR' 1D 1CLK 1PRE' >1Q >1Q' GND >2Q' >2Q 2PRE' 2CLK 2D 2CLR' VCC",
    ns: { '74HC': 14, '74LS': 19 },
  },
  (u) => {
    const [state, preset, clear] = [u.b.later(), u.low("PRE'"), u.low("CLR'")];
    u.store('Q', Primitive.DFF_RISE, u.pin('D'), u.pin('CLK'), state, { preset, clear });
    showBoth(u, state, preset, clear);
  },
);

/** A JK flip-flop on the falling edge with a clear and, for some, a preset, both acting at 0. */
const fallingJk = (hasPreset: boolean) => (u: UnitBuilder) => {
  const [state, clear] = [u.b.later(), u.low("CLR'")];
  const preset = hasPreset ? { preset: u.low("PRE'") } : {};
  u.store('Q', Primitive.DFF_FALL, jkNext(u, state), u.pin('CLK'), state, { ...preset, clear });
  showBoth(u, state, preset.preset, hasPreset ? clear : undefined);
};

const dualJk73 = definePackage(
  {
    number: '73',
    says: 'Two JK flip-flops on the falling edge, each with clear.',
    pins: "1CLK 1CLR' 1K VCC 2CLK 2CLR' 2J >2Q' >2Q 2K GND >1Q >1Q' 1J",
    ns: { '74HC': 16, '74LS': 15 },
  },
  fallingJk(false),
);

const dualJk76 = definePackage(
  {
    number: '76',
    says: 'Two JK flip-flops on the falling edge, each with preset and clear.',
    pins: "1CLK 1PRE' 1CLR' 1J VCC 2CLK 2PRE' 2CLR' 2J >2Q' >2Q 2K GND >1Q' >1Q 1K",
    ns: { '74HC': 17, '74LS': 15 },
  },
  fallingJk(true),
);

const dualJk107 = definePackage(
  {
    number: '107',
    says: 'Two JK flip-flops on the falling edge, each with clear; supply at the corners.',
    pins: "1J >1Q' >1Q 1K >2Q >2Q' GND 2J 2CLK 2CLR' 2K 1CLK 1CLR' VCC",
    ns: { '74HC': 16, '74LS': 15 },
  },
  fallingJk(false),
);

const dualJk112 = definePackage(
  {
    number: '112',
    says: 'Two JK flip-flops on the falling edge, each with preset and clear; supply at the corners.',
    pins: "1CLK 1K 1J 1PRE' >1Q >1Q' >2Q' GND >2Q 2PRE' 2J 2K 2CLK 2CLR' 1CLR' VCC",
    ns: { '74HC': 16, '74LS': 15 },
  },
  fallingJk(true),
);

const dualD4013 = definePackage(
  {
    number: '4013',
    says: 'Two D flip-flops on the rising edge, each with set and reset that act at 1.',
    pins: ">1Q >1Q' 1CLK 1R 1D 1S VSS 2S 2D 2R 2CLK >2Q' >2Q VDD",
    ns: { '4000B': 150 },
  },
  (u) => {
    const [state, preset, clear] = [u.b.later(), u.pin('S'), u.pin('R')];
    u.store('Q', Primitive.DFF_RISE, u.pin('D'), u.pin('CLK'), state, { preset, clear });
    showBoth(u, state, preset, clear);
  },
);

const dualJk4027 = definePackage(
  {
    number: '4027',
    says: 'Two JK flip-flops on the rising edge, each with set and reset that act at 1.',
    pins: ">2Q >2Q' 2CLK 2R 2K 2J 2S VSS 1S 1J 1K 1R 1CLK >1Q' >1Q VDD",
    ns: { '4000B': 150 },
  },
  (u) => {
    const [state, preset, clear] = [u.b.later(), u.pin('S'), u.pin('R')];
    u.store('Q', Primitive.DFF_RISE, jkNext(u, state), u.pin('CLK'), state, { preset, clear });
    showBoth(u, state, preset, clear);
  },
);

/** D flip-flops with one clock and one clear, by the numbers of their bits. */
const commonD = (bits: number, hasInverse: boolean) => (u: UnitBuilder) => {
  const clear = u.low("CLR'");
  for (let bit = 1; bit <= bits; bit++) {
    const state = u.b.later();
    u.store(`Q${bit}`, Primitive.DFF_RISE, u.pin(`${bit}D`), u.pin('CLK'), state, { clear });
    u.show(`${bit}Q`, state);
    if (hasInverse) u.show(`${bit}Q'`, not(u.b, state));
  }
};

const hexD174 = definePackage(
  {
    number: '174',
    says: 'Six D flip-flops on the rising edge, with one clock and one clear.',
    pins: "CLR' >1Q 1D 2D >2Q 3D >3Q GND CLK >4Q 4D >5Q 5D 6D >6Q VCC",
    ns: { '74HC': 16, '74LS': 20 },
  },
  commonD(6, false),
);

const quadD175 = definePackage(
  {
    number: '175',
    says: 'Four D flip-flops on the rising edge with both outputs, one clock and one clear.',
    pins: "CLR' >1Q >1Q' 1D 2D >2Q' >2Q GND CLK >3Q >3Q' 3D 4D >4Q' >4Q VCC",
    ns: { '74HC': 17, '74LS': 20 },
  },
  commonD(4, true),
);

const octalD273 = definePackage(
  {
    number: '273',
    says: 'Eight D flip-flops on the rising edge, with one clock and one clear.',
    pins: "CLR' >1Q 1D 2D >2Q >3Q 3D 4D >4Q GND CLK >5Q 5D 6D >6Q >7Q 7D 8D >8Q VCC",
    ns: { '74HC': 15, '74LS': 18 },
  },
  commonD(8, false),
);

const octalD374 = definePackage(
  {
    number: '374',
    says: 'Eight D flip-flops on the rising edge, whose outputs can be switched off together.',
    pins: "OE' >1Q 1D 2D >2Q >3Q 3D 4D >4Q GND CLK >5Q 5D 6D >6Q >7Q 7D 8D >8Q VCC",
    ns: { '74HC': 15, '74LS': 19 },
  },
  (u) => {
    const enable = u.low("OE'");
    for (let bit = 1; bit <= 8; bit++) {
      const state = u.b.later();
      u.store(`Q${bit}`, Primitive.DFF_RISE, u.pin(`${bit}D`), u.pin('CLK'), state);
      u.showWhile(`${bit}Q`, state, enable);
    }
  },
);

const quadD173 = definePackage(
  {
    number: '173',
    says: 'Four D flip-flops that take their data while both gates are 0; outputs that can be switched off.',
    pins: "M' N' >1Q >2Q >3Q >4Q CLK GND G1' G2' 4D 3D 2D 1D CLR VCC",
    ns: { '74HC': 17, '74LS': 20 },
    exchangeable: ["M' N'", "G1' G2'"],
  },
  (u) => {
    const enable = u.b.gate(Primitive.NOR, u.word("M' N'"));
    const takes = u.b.gate(Primitive.NOR, u.word("G1' G2'"));
    for (let bit = 1; bit <= 4; bit++) {
      const state = u.b.later();
      const next = choose(u.b, takes, [state], [u.pin(`${bit}D`)])[0]!;
      u.store(`Q${bit}`, Primitive.DFF_RISE, next, u.pin('CLK'), state, { clear: u.pin('CLR') });
      u.showWhile(`${bit}Q`, state, enable);
    }
  },
);

/** Flip-flops, alone and several together. */
export const flipFlopPackages: readonly PackageType[] = [
  dualJk73,
  dualD74,
  dualJk76,
  dualJk107,
  dualJk112,
  quadD173,
  hexD174,
  quadD175,
  octalD273,
  octalD374,
  dualD4013,
  dualJk4027,
];
