import { drawnFormat } from '../drawn-format';

export const SVG_FORMAT = drawnFormat({
  id: 'svg',
  noun: 'a picture (SVG)',
  endings: ['.svg'],
  mimeType: 'image/svg+xml',
  at: ['sheet', 'command line'],
  loadWriter: async () => (await import('../../figure/figure-svg')).figureSvg,
});
