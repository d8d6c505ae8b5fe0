import type { Format } from '../format';

/** A sheet as it is at the moment, signals and all. Only a browser paints it. */
export const PNG_FORMAT: Format = {
  id: 'png',
  noun: 'a picture (PNG)',
  endings: ['.png'],
  mimeType: 'image/png',
  paintedAt: ['sheet'],
};
