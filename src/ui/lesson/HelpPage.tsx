'use client';

import { useEffect, useState } from 'react';
import { COMMANDS } from '@/commands';
import { type HelpSection, keyLines } from '@/commands/key-help';
import { fetcher } from '@/loading/load';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { FACES } from '@/ui/faces';
import type { HelpLine } from '@/ui/faces/face';

/** Pointer gestures and typed lines; the lines for keys follow from the commands. */
const BY_HAND: Readonly<Record<HelpSection, readonly HelpLine[]>> = {
  Place: [
    ['Right button on paper', 'the ring of parts'],
    ['Type a name', 'and 3 · sw Key, Bars · clock 4 Hz · four lamps · 2 to 4 decoder'],
    ['Type a statement', 'Drive = Key and Bars · F(A, B, C) = Σm(1, 4) · Q0, Q1.C = Clk · Y = A[7:4]'],
    ['After placing from the ring', 'type its label, or go on'],
    ['Right after placing', 'Enter: another · Tab: its first setting'],
    ['Drop a part on a wire, or pin to pin', 'it goes in, or is joined'],
    ['Ctrl and drag', 'duplicates'],
  ],
  Wire: [
    ['Drag from pin to pin', 'or click one pin, then the other'],
    ['Drag from a pin onto paper', 'offers the parts that fit there'],
    ['Drag over several pins', 'joins them one by one, or bit by bit to a bus'],
    ['Drag from the middle of a wire', 'branches it'],
    ['Type a part while a wire is selected', 'puts it into the wire'],
    ['Click a wire, then drag it', 'pulls it aside; drag an end to put it elsewhere'],
    ['Right button', 'gives up a wire that was begun'],
  ],
  Try: [
    ['Click a switch', 'flips it'],
    ['Press a button', 'holds it; Shift-click keeps it held'],
  ],
  Change: [
    ['Double click', 'settings of a part, or into a block; on a switch: its label'],
    ['Right button on a part or wire', 'all that can be done with it'],
    ['Drag', 'moves it'],
    ['Alt and drag on paper', 'makes room'],
    ['Select several (in the bar) · Shift and drag · Ctrl click', 'select several'],
  ],
  Look: [
    ['Drag paper · wheel', 'move about · zoom to the pointer'],
    ['Tab, then ↑ ↓', 'from part to part; each is read out'],
  ],
};

interface FaceHelp {
  readonly id: string;
  readonly name: string;
  readonly lines: readonly HelpLine[];
}

const facesHelp = fetcher('the help for faces', () =>
  Promise.all(
    FACES.filter((face) => face.loadHelp).map(
      async ({ id, name, loadHelp }): Promise<FaceHelp> => ({ id, name, lines: await loadHelp!() }),
    ),
  ),
);

const SECTIONS = Object.keys(BY_HAND) as HelpSection[];

/** The help page: gestures and keys, with the faces' own lines. */
export function HelpPage({ onClose }: { onClose: () => void }) {
  const [faces, setFaces] = useState<readonly FaceHelp[]>([]);
  useEffect(() => void facesHelp().then(setFaces), []);
  return (
    <Modal title="Hands and keys" onClose={onClose} foot={<DialogFoot onClose={onClose} />}>
      <div className="columns-2 gap-8 max-sm:columns-1">
        {SECTIONS.map((title) => (
          <Section key={title} title={title} lines={[...BY_HAND[title], ...keyLines(COMMANDS, title)]} />
        ))}
        {faces.map(({ id, name, lines }) => (
          <Section key={id} title={name} lines={lines} />
        ))}
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
