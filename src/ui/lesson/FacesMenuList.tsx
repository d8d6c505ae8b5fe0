'use client';

import { DropdownMenu } from 'radix-ui';
import { RADICES } from '@/core/values/radix';
import { toggleProjector, useProjector } from '@/ui/controls/theme';
import type { Face, FacesMenuProps } from './face';
import { useSession, useSessionState } from './session-context';

const NAMES: Record<Face, string> = { table: 'Truth table', time: 'Time' };

const CROSSINGS = { plain: 'Plain', gap: 'With a gap', bridge: 'With a bridge' };

/** Which faces stand beside the drawing, and how gates are drawn. */
export function FacesMenuList({ open, onChange }: FacesMenuProps) {
  const session = useSession();
  const settings = useSessionState((s) => s.lesson.settings);
  const projector = useProjector();
  const change = (part: Partial<typeof settings>) =>
    session.edit({ type: 'changeLesson', change: { settings: { ...settings, ...part } } });
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
          <DropdownMenu.Separator className="my-1 border-t border-hairline" />
          <DropdownMenu.Label className="px-2.5 py-1 text-xs text-quiet">Gate symbols</DropdownMenu.Label>
          <DropdownMenu.RadioGroup
            value={settings.symbols}
            onValueChange={(v) => change({ symbols: v as typeof settings.symbols })}
          >
            <DropdownMenu.RadioItem className="menu-item" value="distinctive">
              <Tick on={settings.symbols === 'distinctive'} /> Distinctive (IEEE 91)
            </DropdownMenu.RadioItem>
            <DropdownMenu.RadioItem className="menu-item" value="rectangular">
              <Tick on={settings.symbols === 'rectangular'} /> Rectangular (IEC 60617)
            </DropdownMenu.RadioItem>
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Separator className="my-1 border-t border-hairline" />
          <DropdownMenu.Label className="px-2.5 py-1 text-xs text-quiet">Wires that cross</DropdownMenu.Label>
          <DropdownMenu.RadioGroup
            value={settings.crossings}
            onValueChange={(v) => change({ crossings: v as typeof settings.crossings })}
          >
            {(['plain', 'gap', 'bridge'] as const).map((v) => (
              <DropdownMenu.RadioItem key={v} className="menu-item" value={v}>
                <Tick on={settings.crossings === v} /> {CROSSINGS[v]}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Separator className="my-1 border-t border-hairline" />
          <DropdownMenu.Label className="px-2.5 py-1 text-xs text-quiet">Values of buses</DropdownMenu.Label>
          <DropdownMenu.RadioGroup
            value={settings.buses}
            onValueChange={(v) => change({ buses: v as typeof settings.buses })}
          >
            {RADICES.map((v) => (
              <DropdownMenu.RadioItem key={v} className="menu-item" value={v}>
                <Tick on={settings.buses === v} /> {v === 'signed' ? "two's complement" : v}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Separator className="my-1 border-t border-hairline" />
          <DropdownMenu.Label className="px-2.5 py-1 text-xs text-quiet">
            Flip-flops power up as
          </DropdownMenu.Label>
          <DropdownMenu.RadioGroup
            value={settings.powerUp}
            onValueChange={(v) => change({ powerUp: v as typeof settings.powerUp })}
          >
            {(['0', '1', 'X'] as const).map((v) => (
              <DropdownMenu.RadioItem key={v} className="menu-item font-mono" value={v}>
                <Tick on={settings.powerUp === v} /> {v === 'X' ? 'X (unknown)' : v}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Tick({ on }: { on: boolean }) {
  return (
    <span className="w-4 text-accent" aria-hidden="true">
      {on ? '●' : ''}
    </span>
  );
}
