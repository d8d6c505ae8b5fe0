import type { Settings, Sheet } from '../circuit/sheet';
import type { PinNotes } from '../drawing/geometry/pin-notes';
import { figureSvg } from '../figure/figure-svg';
import { sheetFigure } from '../figure/sheet-figure';

/** A sheet as a picture (SVG 1.1): the same shapes as on the screen, without signals. */
export const writeSvg = (
  sheet: Sheet,
  settings?: Pick<Settings, 'symbols' | 'crossings'>,
  notes?: PinNotes,
): string => figureSvg(sheetFigure(sheet, { settings, notes }));
