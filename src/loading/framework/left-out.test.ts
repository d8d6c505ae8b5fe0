/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { NEXT_NAV_DEPLOYMENT_ID_HEADER } from './header-names';

const files = (folder: string, ending: RegExp) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => ending.test(file))
    .map((file) => ({ file, text: readFileSync(path.join(folder, file), 'utf8') }));

test('the browser needs no constant of the framework but the one that is given', () => {
  const framework = path.dirname(createRequire(`${process.cwd()}/x.js`).resolve('next/package.json'));
  const asked = new Map<string, string[]>();
  for (const { file, text } of files(path.join(framework, 'dist/client/components'), /\.js$/)) {
    const name = /const (\w+) = require\("\.\.\/\.\.\/\.\.\/lib\/constants"\)/.exec(text)?.[1];
    if (!name) continue;
    for (const [, constant] of text.matchAll(new RegExp(`\\b${name}\\.(\\w+)`, 'g')))
      asked.set(constant!, [...(asked.get(constant!) ?? []), file]);
  }
  expect([...asked.keys()]).toEqual(['NEXT_NAV_DEPLOYMENT_ID_HEADER']);
  const given = createRequire(`${framework}/package.json`)('./dist/lib/constants.js');
  expect(NEXT_NAV_DEPLOYMENT_ID_HEADER).toBe(given.NEXT_NAV_DEPLOYMENT_ID_HEADER);
});

test('no function runs on a server', () => {
  const directive = new RegExp(['use', 'server'].join(' '));
  const found = ['app', 'src'].flatMap((folder) =>
    files(folder, /\.tsx?$/).filter(({ text }) => directive.test(text)),
  );
  expect(found.map(({ file }) => file)).toEqual([]);
});
