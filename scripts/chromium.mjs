import { spawn, spawnSync } from 'node:child_process';

/** Debian's Chromium, or the one that is named. */
export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';

export const FLAGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Builds the application if need be and serves it. @returns the server's process, once it answers. */
export async function served(port) {
  spawnSync('scripts/build', { stdio: 'inherit' });
  const server = spawn('scripts/serve', [String(port)], { stdio: 'ignore' });
  for (let tries = 0; tries < 100; tries++) {
    if (await fetch(`http://localhost:${port}`).catch(() => null)) return server;
    await new Promise((done) => setTimeout(done, 100));
  }
  server.kill();
  throw new Error('the server does not answer');
}
