import type { Settings } from '@/core/circuit/sheet';
import { changeSettings } from '@/session/changes/lesson';
import type { Command } from './command';
import { canWrite } from './conditions';

/** A setting of the lesson that is one of a few values. */
export interface SettingChoice {
  readonly setting: 'symbols' | 'crossings' | 'buses' | 'powerUp' | 'terms';
  readonly title: string;
  /** As it follows “change”, in a step of undo. */
  readonly what: string;
  /** The names of the values, in the order in which they are shown. */
  readonly options: Readonly<Record<string, string>>;
}

/** Holds the values of a choice to those that the setting has. */
const choice = <K extends SettingChoice['setting']>(
  setting: K,
  title: string,
  what: string,
  options: Readonly<Record<Settings[K], string>>,
): SettingChoice => ({ setting, title, what, options });

export const SETTINGS: readonly SettingChoice[] = [
  choice('symbols', 'Gate symbols', 'the gate symbols', {
    distinctive: 'Distinctive (IEEE 91)',
    rectangular: 'Rectangular (IEC 60617)',
  }),
  choice('crossings', 'Wires that cross', 'how wires cross', {
    plain: 'Plain',
    gap: 'With a gap',
    bridge: 'With a bridge',
  }),
  choice('buses', 'Values of buses', 'how buses are read', {
    binary: 'binary',
    hexadecimal: 'hexadecimal',
    unsigned: 'unsigned',
    signed: "two's complement",
  }),
  choice('powerUp', 'Flip-flops power up as', 'the power-up state', { '0': '0', '1': '1', X: 'X (unknown)' }),
  choice('terms', 'Equal terms of statements', 'how equal terms are drawn', {
    written: 'as written',
    shared: 'shared',
  }),
];

/** A command for each value of each setting. */
export const SETTING_COMMANDS: readonly Command[] = SETTINGS.flatMap(({ setting, title, what, options }) =>
  Object.entries(options).map(
    ([value, name]): Command => ({
      id: `settings.${setting}-${value}`,
      name: `${title}: ${name}`,
      group: 'settings',
      undoName: `change ${what}`,
      isOn: ({ session }) => session.state.lesson.settings[setting] === value,
      when: canWrite,
      run: ({ session }) => changeSettings(session, what, { [setting]: value }),
    }),
  ),
);

export const settingCommand = (setting: SettingChoice['setting'], value: string): Command =>
  SETTING_COMMANDS.find((c) => c.id === `settings.${setting}-${value}`)!;
