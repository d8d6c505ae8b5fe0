import { hasClock, movesByItself } from '@/session/moment';
import type { Face } from '../face';

export const TABLE_FACE: Face = {
  id: 'table',
  name: 'Truth table',
  what: 'the truth table',
  load: () => import('./TruthTableFace').then((m) => m.TruthTableFace),
  opensWhen: ({ netlist, taskNeedsTime }) =>
    !hasClock(netlist) && !(movesByItself(netlist) && netlist.storage.length > 0) && !taskNeedsTime,
  help: [
    ['0, 1, x in a table to fill in', 'fill it down the column; Enter draws it, F2 changes names'],
    ['Paste into it', 'cells from a spreadsheet, or a whole table'],
    ['Press an output twice', 'its value is reversed, and the circuit of that is offered'],
    ['Drag a heading', 'the rows in another order'],
  ],
};
