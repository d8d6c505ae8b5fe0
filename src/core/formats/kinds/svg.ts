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
      return ({ lesson, sheet }) => done([writeSvg(sheet, lesson.settings).trimEnd()]);
    },
  },
};
