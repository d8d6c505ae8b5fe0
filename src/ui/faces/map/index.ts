import type { Face } from '../face';

export const MAP_FACE: Face = {
  id: 'map',
  name: 'Map',
  what: 'the map',
  load: () => import('./MapFace').then((m) => m.MapFace),
  opensWhen: () => false,
  isWide: true,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
