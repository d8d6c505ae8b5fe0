import { pathTo } from '@/loading/base';
import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import '@fontsource/atkinson-hyperlegible-next/700.css';
import '@fontsource/atkinson-hyperlegible-mono/400.css';
import '@fontsource/atkinson-hyperlegible-mono/700.css';
import './globals.css';
import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { FetchFailures } from '@/ui/controls/FetchFailures';
import { Hints } from '@/ui/controls/Hints';
import { Offline } from '@/ui/controls/Offline';

export const metadata: Metadata = {
  title: 'Manege',
  description: 'Build gate-level circuits, see signals move through them, hand exercises out and mark them.',
};

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function Layout({ children }: { children: ReactNode }) {
  // Reading the nonce makes every page render for its own request, as a strict policy needs.
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script src={pathTo('/theme.js')} nonce={nonce} suppressHydrationWarning />
      </head>
      <body>
        {children}
        <Hints />
        <FetchFailures />
        <Offline />
      </body>
    </html>
  );
}
