import { readFileSync } from 'node:fs';
import { FILE_POLICY, HEADERS, pagePolicy } from './policy';

test('a page runs nothing from text, in the served application', () => {
  const policy = pagePolicy('abc', false);
  expect(policy).not.toMatch(/unsafe-inline|'unsafe-eval'/);
  expect(policy).toContain("require-trusted-types-for 'script'");
  expect(policy.match(/'nonce-abc'/g)).toHaveLength(2);
  expect(FILE_POLICY).not.toMatch(/unsafe-inline|'unsafe-eval'/);
});

test('the docs name every header that is sent', () => {
  const page = readFileSync('docs/security.md', 'utf8');
  for (const name of ['Content-Security-Policy', ...Object.keys(HEADERS)]) expect(page).toContain(name);
});
