import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // The build for today's browsers; the package's entry serves the one for all of the last ten years. What the framework
  // brings along for browsers older than that is left out as well.
  turbopack: {
    resolveAlias: {
      dexie: 'dexie/dist/modern/dexie.min.mjs',
      '../build/polyfills/polyfill-module': './src/ui/controls/no-polyfills.ts',
    },
  },
  // `./test` checks types on its own, tests included.
  typescript: { ignoreBuildErrors: true },
};

export default config;
