import { hasClock, movesByItself } from '@/session/moment';
import type { Face } from '../face';

export const TABLE_FACE: Face = {
  id: 'table',
  name: 'Truth table',
  what: 'the truth table',
  load: () => import('./TruthTableFace').then((m) => m.TruthTableFace),
  opensWhen: ({ netlist, taskNeedsTime }) =>
    !hasClock(netlist) && !(movesByItself(netlist) && netlist.storage.length > 0) && !taskNeedsTime,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
