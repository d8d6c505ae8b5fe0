import type { Face } from '../face';

export const STATES_FACE: Face = {
  id: 'states',
  name: 'States',
  what: 'the states',
  load: () => import('./StatesFace').then((m) => m.StatesFace),
  opensWhen: () => false,
  isWide: true,
};
