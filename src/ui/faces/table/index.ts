import { hasClock, movesByItself } from '@/session/moment';
import type { Face } from '../face';

export const TABLE_FACE: Face = {
  id: 'table',
  name: 'Truth table',
  what: 'the truth table',
  load: () => import('./TruthTableFace').then((m) => m.TruthTableFace),
  opensWhen: ({ netlist, rules }) =>
    !hasClock(netlist) &&
    !(movesByItself(netlist) && netlist.storage.length > 0) &&
    !rules.needsTime &&
    rules.guide === null,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
