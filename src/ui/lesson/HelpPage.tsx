'use client';

import { Modal } from '@/ui/controls/Modal';

const HELP: readonly (readonly [title: string, lines: readonly (readonly [what: string, how: string])[]])[] =
  [
    [
      'Place',
      [
        ['Space, or the right button', 'opens the ring of parts at the pointer'],
        ['Type a name', 'and 3 · sw Key, Bars · clock 4 Hz · d fall'],
        ['Type what is to be', 'Drive = Key and Bars · Q1.T = M xor Q0'],
        ['Right after placing', 'Enter: another · Tab: its first setting'],
        ['Drop a part on a wire, or pin to pin', 'it goes in, or is joined'],
        ['Ctrl C, X, V · Ctrl D · Ctrl drag', 'copy, cut, paste · duplicate'],
      ],
    ],
    [
      'Wire',
      [
        ['Drag from pin to pin', 'or click one pin, then the other'],
        ['Drag from a pin onto paper', 'offers the parts that fit there'],
        ['Drag over several pins', 'joins them one by one, or as a bus'],
        ['Drag from the middle of a wire', 'branches it'],
        ['Click a wire, then drag it', 'pulls it aside, as do arrow keys; drag an end to put it elsewhere'],
        ['/ with a part or wires selected', 'wires it, or moves an end, by words'],
        ['Right button or Esc', 'gives up a wire that was begun'],
      ],
    ],
    [
      'Try',
      [
        ['Click a switch, or Enter', 'flips it'],
        ['Press a button', 'holds it; Shift-click keeps it held'],
        ['? with a part selected', 'its own table, with the row of now'],
        ['F8', 'the next thing to mend, with what mends it'],
        ['Arrow keys, nothing selected', 'next row, or on and back in time'],
      ],
    ],
    [
      'Table, formula, map',
      [
        ['0, 1, x in a table to fill in', 'fill it down the column; Enter draws it, F2 changes names'],
        ['Paste into it', 'cells from a spreadsheet, or a whole table'],
        ['Press an output or a cell of the map twice', 'it is to be otherwise; its circuit is offered'],
        ['Change, beside a formula', 'in any notation; names that are new become inputs'],
        ['Drag a heading, or the name of an axis', 'the rows, or the map, in another order'],
      ],
    ],
    [
      'Change',
      [
        ['Double click, or F2', 'label and settings of a part'],
        ['Drag · arrow keys', 'move it; with Shift five steps at a time'],
        ['[ or ] · | · _', 'turn it · mirror it'],
        ['2 to 9', 'number of inputs of the selected gates'],
        ['Right button on a part or wire', 'all that can be done with it'],
        ['Alt and drag on paper', 'makes room'],
        ['Shift and drag on paper · Ctrl click', 'select several'],
        ['Delete · Shift Delete', 'remove · and lead its wires on'],
        ['Ctrl Z · Ctrl Shift Z', 'undo · redo'],
      ],
    ],
    [
      'Time',
      [
        ['Drag along the diagram', 'the moment, for all faces; it jumps to edges that are near'],
        ['Click names of lanes · with Shift', 'choose one · all between, to group, search or hide them'],
        ['Drag the name of a lane', 'moves it up or down'],
        ['M · W', 'a mark to measure from · why the lane changed'],
        ['Drag on an input’s lane, Stimulus open', 'draws its level'],
      ],
    ],
    [
      'Look',
      [
        ['Drag paper · wheel', 'move about · zoom to the pointer'],
        ['0 · + · −', 'show everything · closer · farther'],
        ['F9', 'large, for a projector'],
        ['Tab, then ↑ ↓', 'from part to part; each is read out'],
      ],
    ],
  ];

/** What hands and keys do. */
export function HelpPage({ onClose }: { onClose: () => void }) {
  return (
    <Modal
      title="Hands and keys"
      onClose={onClose}
      foot={
        <button type="button" className="button main" onClick={onClose}>
          Close
        </button>
      }
    >
      <div className="columns-2 gap-8 max-sm:columns-1">
        {HELP.map(([title, lines]) => (
          <section key={title} className="mb-4 break-inside-avoid">
            <h3 className="mb-1 font-bold text-accent">{title}</h3>
            <dl className="flex flex-col gap-1.5 text-sm">
              {lines.map(([what, how]) => (
                <div key={what}>
                  <dt className="font-semibold">{what}</dt>
                  <dd className="text-quiet">{how}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  );
}
