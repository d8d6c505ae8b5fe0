import type { MetadataRoute } from 'next';
import { BASE, pathTo } from '@/loading/base';

/** For browsers that install it: its name, its pictures, and the files that the system opens with it. */
export default function manifest(): MetadataRoute.Manifest {
  const home = BASE || '/';
  return {
    name: 'Manege',
    short_name: 'Manege',
    description:
      'Build gate-level circuits, see signals move through them, hand exercises out and mark them.',
    id: home,
    start_url: home,
    scope: home,
    display: 'standalone',
    background_color: '#f3ede1',
    theme_color: '#7a3b69',
    lang: 'en',
    categories: ['education'],
    icons: [
      { src: pathTo('/icon.svg'), sizes: 'any', type: 'image/svg+xml' },
      { src: pathTo('/icons/192.png'), sizes: '192x192', type: 'image/png' },
      { src: pathTo('/icons/512.png'), sizes: '512x512', type: 'image/png' },
      { src: pathTo('/icons/maskable.png'), sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
    file_handlers: [
      {
        action: home,
        accept: {
          'application/json': ['.json'],
          'text/x-verilog': ['.v'],
          'text/plain': ['.blif', '.aag', '.pla', '.kiss2'],
        },
      },
    ],
  };
}
