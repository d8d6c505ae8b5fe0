'use client';

import { DropdownMenu } from 'radix-ui';
import type { Lesson, Sheet } from '@/core/circuit/lesson';
import { updateDerived } from '@/core/synthesis/update-derived';
import { load } from '@/loading/load';
import { tidySheet } from '@/session/changes/arrange';
import { blockOfSelection } from '@/session/changes/block';
import { addSheet, portsForSheet, removeSheet } from '@/session/changes/sheets';
import type { Session } from '@/session/session';
import { fileName, saveFile } from '@/ui/controls/files';
import { useSession, useSessionState } from '../session/session-context';
import { OPEN_TAB, OpenTab } from './OpenTab';

interface Props {
  readonly sheet: Sheet;
  /** Whether it is the lesson's only sheet. */
  readonly alone: boolean;
  readonly onRename: () => void;
  readonly onCompare: () => void;
}

/** Says so where something could not be made. */
async function told(session: Session, work: Promise<void>): Promise<void> {
  await work.catch((error: Error) => session.say(`That did not work: ${error.message}.`, 'bad'));
}

/** Writers are fetched when they are asked for. */
async function savePicture(lesson: Lesson, sheet: Sheet): Promise<void> {
  const { writeSvg } = await load('the picture writer', () => import('@/core/formats/svg'));
  saveFile(fileName(sheet.name, '.svg'), writeSvg(sheet, lesson.settings), 'image/svg+xml');
}

async function savePng(session: Session): Promise<void> {
  const { pictureOf } = await load('the picture writer', () => import('@/ui/drawing/canvas/picture'));
  saveFile(fileName(session.sheet.name, '.png'), await pictureOf(session.state), 'image/png');
}

async function print(session: Session): Promise<void> {
  const { printSheet } = await load('the printer', () => import('@/ui/drawing/canvas/picture'));
  await printSheet(session.state, `${session.state.lesson.title} · ${session.sheet.name}`);
}

async function saveVerilog(lesson: Lesson, sheet: Sheet): Promise<void> {
  const { writeVerilog } = await load('the Verilog writer', () => import('@/core/formats/verilog/write'));
  saveFile(fileName(sheet.name, '.v'), writeVerilog(lesson, sheet), 'text/plain');
}

/** What can be done with the open sheet. */
export function SheetMenu({ sheet, alone, onRename, onCompare }: Props) {
  const session = useSession();
  session.setUpdateDerived(updateDerived);
  const readOnly = useSessionState((s) => s.readOnly);
  const selected = useSessionState((s) => s.selection.parts.size);
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger className={OPEN_TAB}>
        <OpenTab name={sheet.name} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="menu"
          sideOffset={4}
          align="start"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <DropdownMenu.Item className="menu-item" disabled={readOnly} onSelect={onRename}>
            Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className="menu-item"
            disabled={readOnly || alone}
            onSelect={() => removeSheet(session, sheet.id)}
          >
            Remove
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" disabled={readOnly} onSelect={() => addSheet(session)}>
            Add a sheet
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className="menu-item"
            disabled={readOnly}
            onSelect={() => portsForSheet(session, sheet.id)}
          >
            Make it usable as a block
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className="menu-item"
            disabled={readOnly || selected === 0}
            onSelect={() => blockOfSelection(session)}
          >
            Make a block of what is selected
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" disabled={readOnly} onSelect={() => tidySheet(session)}>
            Tidy the whole sheet
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={onCompare}>
            Compare with a sheet or formula
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 h-px bg-hairline" />
          <DropdownMenu.Item
            className="menu-item"
            onSelect={() => void savePicture(session.state.lesson, sheet)}
          >
            Save as a picture (SVG)
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={() => void told(session, savePng(session))}>
            Save as a picture (PNG)
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={() => void told(session, print(session))}>
            Print
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className="menu-item"
            onSelect={() => void saveVerilog(session.state.lesson, sheet)}
          >
            Save as Verilog
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
