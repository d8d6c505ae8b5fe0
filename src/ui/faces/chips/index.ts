import type { Face } from '../face';

export const CHIPS_FACE: Face = {
  id: 'chips',
  name: 'Chips',
  what: 'the packages of the circuit',
  load: () => import('./ChipsFace').then((m) => m.ChipsFace),
  opensWhen: () => false,
  isWide: true,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
