import type { HelpLine } from '../face';

/** The lines of this face on the help page. */
export const HELP: readonly HelpLine[] = [
  ['Drag from hole to hole', 'lays a wire; or press one hole, then the other'],
  [
    'Press the right button, or rest a finger, on the bare board',
    'opens the ring: a stroke over a group on to a package or a lamp puts it there',
  ],
  ['Drag a package', 'moves it along the trench; its wires go along'],
  ['Click a wire or a package', 'selects it: Delete takes it away; drag an end of a wire to another hole'],
  ['Point at a hole', 'tells what hangs on it, and its level'],
  [
    '7408 · wire U1.3 U2.1 · lamp U3.6',
    'typed in the line below the board: a package, a wire, a lamp at a pin',
  ],
  ['Arrow keys, Enter, Delete', 'walk from hole to hole, begin and end a wire, take away what is selected'],
  ['Enter at the leg of a package', 'selects it: the arrow keys move it then, until Escape'],
  ['Board', 'its size, a hidden fault to be found by probing, pictures, and print with the list of wires'],
  [
    'Lay the next · Lay this stage · Test this stage',
    'wiring by the list of the Chips face, a stage after the other',
  ],
];
