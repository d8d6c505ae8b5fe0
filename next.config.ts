import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // `./test` checks types on its own, tests included.
  typescript: { ignoreBuildErrors: true },
};

export default config;
