'use client';

import { COMMANDS } from '@/commands';
import { type HelpSection, keyLines } from '@/commands/key-help';
import { Modal } from '@/ui/controls/Modal';
import { FACES } from '@/ui/faces';
import type { HelpLine } from '@/ui/faces/face';

/** What pointers do, and what is typed: the lines of the keys follow from the commands. */
const BY_HAND: Readonly<Record<HelpSection, readonly HelpLine[]>> = {
  Place: [
    ['Right button on paper', 'the ring of parts'],
    ['Type a name', 'and 3 · sw Key, Bars · clock 4 Hz · d fall'],
    ['Type a statement', 'Drive = Key and Bars · Q1.T = M xor Q0'],
    ['Right after placing', 'Enter: another · Tab: its first setting'],
    ['Drop a part on a wire, or pin to pin', 'it goes in, or is joined'],
    ['Ctrl and drag', 'duplicates'],
  ],
  Wire: [
    ['Drag from pin to pin', 'or click one pin, then the other'],
    ['Drag from a pin onto paper', 'offers the parts that fit there'],
    ['Drag over several pins', 'joins them one by one, or as a bus'],
    ['Drag from the middle of a wire', 'branches it'],
    ['Click a wire, then drag it', 'pulls it aside; drag an end to put it elsewhere'],
    ['Right button', 'gives up a wire that was begun'],
  ],
  Try: [
    ['Click a switch', 'flips it'],
    ['Press a button', 'holds it; Shift-click keeps it held'],
  ],
  Change: [
    ['Double click', 'settings of a part, or into a block'],
    ['Right button on a part or wire', 'all that can be done with it'],
    ['Drag', 'moves it'],
    ['Alt and drag on paper', 'makes room'],
    ['Shift and drag on paper · Ctrl click', 'select several'],
  ],
  Look: [
    ['Drag paper · wheel', 'move about · zoom to the pointer'],
    ['Tab, then ↑ ↓', 'from part to part; each is read out'],
  ],
};

const SECTIONS = Object.keys(BY_HAND) as HelpSection[];

/** What pointers and keys do, with the faces' own lines. */
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
        {SECTIONS.map((title) => (
          <Section key={title} title={title} lines={[...BY_HAND[title], ...keyLines(COMMANDS, title)]} />
        ))}
        {FACES.map(({ id, name, help }) => help.length > 0 && <Section key={id} title={name} lines={help} />)}
      </div>
    </Modal>
  );
}

function Section({ title, lines }: { title: string; lines: readonly HelpLine[] }) {
  return (
    <section className="mb-4 break-inside-avoid">
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
  );
}
