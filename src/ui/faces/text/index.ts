import type { Face } from '../face';

export const TEXT_FACE: Face = {
  id: 'text',
  name: 'Text',
  what: 'the text of the circuit',
  load: () => import('./TextFace').then((m) => m.TextFace),
  opensWhen: () => false,
  isWide: true,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
