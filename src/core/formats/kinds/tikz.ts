import { drawnFormat } from '../drawn-format';

/** A page makes it in its dialog for figures, with the signals of the moment. */
export const TIKZ_FORMAT = drawnFormat({
  id: 'tikz',
  noun: 'a picture for LaTeX (TikZ)',
  endings: ['.tikz', '.tex'],
  mimeType: 'text/x-tex',
  at: ['command line'],
  loadWriter: async () => (await import('../../figure/figure-tikz')).figureTikz,
});
