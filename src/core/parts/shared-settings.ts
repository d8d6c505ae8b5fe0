import { MOST_BITS } from './limits';
import type { Setting } from './part-kind';

/*
 * Settings that parts of several families have.
 */

type Choice = readonly [value: string | number | boolean, label: string];

export const choiceSetting = <P extends string>(
  param: P,
  label: string,
  options: readonly Choice[],
): Setting<P> => ({
  param,
  label,
  control: 'choice',
  options: options.map(([value, text]) => ({ value, label: text })),
});

export const numberSetting = <P extends string>(
  param: P,
  label: string,
  least: number,
  most: number,
  unit?: string,
): Setting<P> => ({ param, label, control: 'number', least, most, ...(unit ? { unit } : {}) });

export const bitsSetting = (least: number) => numberSetting('width', 'Bits', least, MOST_BITS);
export const widthSetting = bitsSetting(1);

export const captionSetting: Setting<'caption'> = {
  param: 'caption',
  label: 'Caption',
  control: 'short',
  hint: 'over it: 8, MSB',
};

export const keySetting: Setting<'key'> = {
  param: 'key',
  label: 'Key',
  control: 'short',
  hint: 'a letter or digit',
};

export const powerUpSetting = choiceSetting('powerUp', 'At power-up', [
  ['lesson', 'as the lesson says'],
  ['0', '0'],
  ['1', '1'],
  ['X', 'unknown'],
]);

export const edgeSetting = choiceSetting('edge', 'Changes on the', [
  ['rising', 'rising edge'],
  ['falling', 'falling edge'],
]);

/** An optional control input, and its active level. */
export const activeSetting = <P extends string>(param: P, label: string) =>
  choiceSetting(param, label, [
    ['none', 'none'],
    ['high', 'acts at 1'],
    ['low', 'acts at 0'],
  ]);

export const enableSetting = choiceSetting('enable', 'Enable', [
  ['no', 'none'],
  ['yes', 'with enable'],
]);
