import type { Face } from '../face';

export const FORMULA_FACE: Face = {
  id: 'formula',
  name: 'Formula',
  what: 'the formula',
  load: () => import('./FormulaFace').then((m) => m.FormulaFace),
  opensWhen: () => false,
  share: 26,
  isWide: true,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
