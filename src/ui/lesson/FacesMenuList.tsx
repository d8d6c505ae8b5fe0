'use client';

import { DropdownMenu } from 'radix-ui';
import { chordText } from '@/commands/chord';
import type { Command } from '@/commands/command';
import { runCommand } from '@/commands/command';
import { faceCommands } from '@/commands/faces';
import { SETTINGS, type SettingChoice, settingCommand } from '@/commands/settings';
import { PROJECTOR } from '@/commands/view';
import { useProjector } from '@/ui/controls/theme';
import { useEditor } from '@/ui/session/editor-context';
import { useSessionState } from '@/ui/session/session-context';

/** Which faces stand beside the drawing, and how gates are drawn. */
export function FacesMenuList({ open }: { open: ReadonlySet<string> }) {
  const editor = useEditor();
  const projector = useProjector();
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger className="button">Faces</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu w-60" sideOffset={4} align="end">
          {faceCommands(editor).map((command) => (
            <Switch key={command.id} command={command} isOn={open.has(command.id.replace(/^face\./, ''))} />
          ))}
          <Switch command={PROJECTOR} isOn={projector > 0} />
          {SETTINGS.map((choice) => (
            <Choice key={choice.setting} choice={choice} />
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** A command that switches something on and off. */
function Switch({ command, isOn }: { command: Command; isOn: boolean }) {
  const editor = useEditor();
  const [key] = command.keys ?? [];
  return (
    <DropdownMenu.CheckboxItem
      className="menu-item"
      checked={isOn}
      onCheckedChange={() => runCommand(command, editor)}
    >
      <Tick on={isOn} /> {command.name}
      {key && <span className="ml-auto pl-3 text-xs text-quiet">{chordText(key)}</span>}
    </DropdownMenu.CheckboxItem>
  );
}

/** One setting of the lesson: its values below its title, the one that holds marked. */
function Choice({ choice: { setting, title, options } }: { choice: SettingChoice }) {
  const editor = useEditor();
  const now = useSessionState((s) => s.lesson.settings[setting]);
  return (
    <>
      <DropdownMenu.Separator className="my-1 border-t border-hairline" />
      <DropdownMenu.Label className="px-2.5 py-1 text-xs text-quiet">{title}</DropdownMenu.Label>
      <DropdownMenu.RadioGroup
        value={now}
        onValueChange={(value) => runCommand(settingCommand(setting, value), editor)}
      >
        {Object.entries(options).map(([value, name]) => (
          <DropdownMenu.RadioItem key={value} className="menu-item" value={value}>
            <Tick on={value === now} /> {name}
          </DropdownMenu.RadioItem>
        ))}
      </DropdownMenu.RadioGroup>
    </>
  );
}

function Tick({ on }: { on: boolean }) {
  return (
    <span className="w-4 text-accent" aria-hidden="true">
      {on ? '●' : ''}
    </span>
  );
}
