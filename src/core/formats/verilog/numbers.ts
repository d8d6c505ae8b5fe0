import { type Place, VerilogError } from './tokens';

const MOST_WIDTH = 4096;

interface NumberValue {
  readonly is: 'number';
  readonly digits: string;
  readonly sized: boolean;
  readonly signed: boolean;
}

/** The value of a number: `12`, `4'b10x0`, `8'hFf`, `'d3`: digits 0 1 x z, the highest first. */
export function numberOf(text: string, place: Place): NumberValue {
  const bad = (what: string): never => {
    throw new VerilogError(what, place);
  };
  const found = /^(\d[\d_]*)?'([sS])?([bodhBODH])([0-9a-fA-FxXzZ?_]+)$/.exec(text);
  if (!found) {
    const value = Number(text.replaceAll('_', ''));
    if (!Number.isFinite(value)) bad(`${text} is too large`);
    if (!Number.isInteger(value)) return { is: 'number', digits: `r${value}`, sized: false, signed: true };
    if (value > 2 ** 53) bad(`${text} is too large`);
    return { is: 'number', digits: value.toString(2).padStart(32, '0'), sized: false, signed: true };
  }
  const width = found[1] === undefined ? 32 : Number(found[1].replaceAll('_', ''));
  if (width < 1 || width > MOST_WIDTH) bad(`a number has 1 to ${MOST_WIDTH} bits, not ${found[1]}`);
  const base = found[3]!.toLowerCase();
  const said = found[4]!.toLowerCase().replaceAll('_', '').replaceAll('?', 'z');
  let digits = '';
  if (base === 'd') {
    if (/^[xz]$/.test(said)) digits = said.repeat(width);
    else if (/^\d{1,1300}$/.test(said)) digits = BigInt(said).toString(2);
    else bad(`${text} has digits that are not decimal`);
  } else {
    const size = { b: 1, o: 3, h: 4 }[base as 'b'];
    for (const c of said) {
      const value = Number.parseInt(c, 16);
      if (c === 'x' || c === 'z') digits += c.repeat(size);
      else if (value >= 2 ** size) bad(`${text} has a digit that its base does not have`);
      else digits += value.toString(2).padStart(size, '0');
    }
  }
  const pad = digits[0] === 'x' || digits[0] === 'z' ? digits[0] : '0';
  return {
    is: 'number',
    digits: digits.padStart(width, pad).slice(-width),
    sized: found[1] !== undefined,
    signed: found[2] !== undefined,
  };
}
