import { done } from '../../values/result';
import type { Format } from '../format';

export const SVG_FORMAT: Format = {
  id: 'svg',
  noun: 'a picture (SVG)',
  endings: ['.svg'],
  mimeType: 'image/svg+xml',
  write: {
    at: ['sheet', 'command line'],
    load: async () => {
      const { writeSvg } = await import('../svg');
      const [{ sheetPlan }, { pinNotesOf }] = await Promise.all([
        import('../../packages/sheet-plan'),
        import('../../packages/pin-notes'),
      ]);
      return ({ lesson, sheet }) => {
        const notes = sheet.chips?.shown ? pinNotesOf(sheetPlan(sheet, lesson.sheets).plan) : undefined;
        return done([writeSvg(sheet, lesson.settings, notes).trimEnd()]);
      };
    },
  },
};
