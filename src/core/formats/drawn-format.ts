import type { Figure } from '../figure/figure';
import { done } from '../values/result';
import type { Format, WritePlace } from './format';

interface DrawnFormat extends Pick<Format, 'id' | 'noun' | 'endings' | 'mimeType'> {
  readonly at: readonly WritePlace[];
  loadWriter(): Promise<(figure: Figure) => string>;
}

/** A format that holds a sheet as a figure, with designators and pins where the sheet shows them. */
export function drawnFormat({ at, loadWriter, ...format }: DrawnFormat): Format {
  return {
    ...format,
    write: {
      at,
      load: async () => {
        const [write, { sheetFigure }, { sheetPlan }, { pinNotesOf }] = await Promise.all([
          loadWriter(),
          import('../figure/sheet-figure'),
          import('../packages/sheet-plan'),
          import('../packages/pin-notes'),
        ]);
        return ({ lesson, sheet }) => {
          const notes = sheet.chips?.shown ? pinNotesOf(sheetPlan(sheet, lesson.sheets).plan) : undefined;
          return done([write(sheetFigure(sheet, { settings: lesson.settings, notes })).trimEnd()]);
        };
      },
    },
  };
}
