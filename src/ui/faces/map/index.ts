import type { Face } from '../face';

export const MAP_FACE: Face = {
  id: 'map',
  name: 'Map',
  what: 'the map',
  load: () => import('./MapFace').then((m) => m.MapFace),
  opensWhen: () => false,
  isWide: true,
  help: [
    ['Press a cell twice', 'its value is reversed, and the circuit of that is offered'],
    ['Drag the name of an axis', 'the map in another order'],
  ],
};
