'use client';

import { DropdownMenu } from 'radix-ui';
import { changeSettings } from '@/session/changes/lesson';
import { toggleProjector, useProjector } from '@/ui/controls/theme';
import { useSession, useSessionState } from '../session/session-context';
import type { Face, FacesMenuProps } from './face';

const NAMES: Record<Face, string> = {
  table: 'Truth table',
  formula: 'Formula',
  map: 'Map',
  time: 'Time',
  states: 'States',
};

/** Which faces stand beside the drawing, and how gates are drawn. */
export function FacesMenuList({ open, onChange }: FacesMenuProps) {
  const session = useSession();
  const settings = useSessionState((s) => s.lesson.settings);
  const projector = useProjector();
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger className="button">Faces</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu w-60" sideOffset={4} align="end">
          {(Object.keys(NAMES) as Face[]).map((face) => (
            <DropdownMenu.CheckboxItem
              key={face}
              className="menu-item"
              checked={open.has(face)}
              onCheckedChange={(checked) => onChange(face, checked)}
            >
              <Tick on={open.has(face)} /> {NAMES[face]}
            </DropdownMenu.CheckboxItem>
          ))}
          <DropdownMenu.CheckboxItem
            className="menu-item"
            checked={projector}
            onCheckedChange={toggleProjector}
          >
            <Tick on={projector} /> Large, for a projector
            <span className="ml-auto pl-3 text-xs text-quiet">F9</span>
          </DropdownMenu.CheckboxItem>
          <Choice
            title="Gate symbols"
            value={settings.symbols}
            options={{ distinctive: 'Distinctive (IEEE 91)', rectangular: 'Rectangular (IEC 60617)' }}
            onChange={(symbols) => changeSettings(session, 'the gate symbols', { symbols })}
          />
          <Choice
            title="Wires that cross"
            value={settings.crossings}
            options={{ plain: 'Plain', gap: 'With a gap', bridge: 'With a bridge' }}
            onChange={(crossings) => changeSettings(session, 'how wires cross', { crossings })}
          />
          <Choice
            title="Values of buses"
            value={settings.buses}
            options={{
              binary: 'binary',
              hexadecimal: 'hexadecimal',
              unsigned: 'unsigned',
              signed: "two's complement",
            }}
            onChange={(buses) => changeSettings(session, 'how buses are read', { buses })}
          />
          <Choice
            title="Flip-flops power up as"
            value={settings.powerUp}
            options={{ '0': '0', '1': '1', X: 'X (unknown)' }}
            onChange={(powerUp) => changeSettings(session, 'the power-up state', { powerUp })}
          />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

interface ChoiceProps<T extends string> {
  readonly title: string;
  readonly value: T;
  /** What each value is called, in the order in which they are shown. */
  readonly options: Readonly<Record<T, string>>;
  readonly onChange: (value: T) => unknown;
}

/** One setting of the lesson: its values below its title, the one that holds marked. */
function Choice<T extends string>({ title, value, options, onChange }: ChoiceProps<T>) {
  return (
    <>
      <DropdownMenu.Separator className="my-1 border-t border-hairline" />
      <DropdownMenu.Label className="px-2.5 py-1 text-xs text-quiet">{title}</DropdownMenu.Label>
      <DropdownMenu.RadioGroup value={value} onValueChange={(v) => onChange(v as T)}>
        {(Object.keys(options) as T[]).map((v) => (
          <DropdownMenu.RadioItem key={v} className="menu-item" value={v}>
            <Tick on={value === v} /> {options[v]}
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
