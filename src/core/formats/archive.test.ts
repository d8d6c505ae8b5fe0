import { strToU8, zipSync } from 'fflate';
import { archived, isArchive, MOST_ARCHIVED, unarchived } from './archive';
import { MOST_BYTES } from './size-limit';

test('files come back as they went in, folders and all letters included', () => {
  const files = [
    { name: 'lessons/Fahrgeschäft 🎠.manege.json', text: '{"a":"ü"}\n' },
    { name: 'empty', text: '' },
  ];
  const bytes = archived(files);
  expect(isArchive(bytes)).toBe(true);
  expect(unarchived(bytes)).toEqual({ ok: true, value: files });
});

test('what unpacks to too much is refused before it is unpacked', () => {
  const bomb = zipSync({ 'a.json': new Uint8Array(MOST_BYTES + 1) }, { level: 9 });
  expect(bomb.length).toBeLessThan(100_000);
  expect(unarchived(bomb)).toMatchObject({ ok: false, problem: { code: 'archive-too-large' } });
  const many = zipSync(
    Object.fromEntries(Array.from({ length: MOST_ARCHIVED + 1 }, (_, i) => [`${i}`, strToU8('x')])),
    { level: 0 },
  );
  expect(unarchived(many)).toMatchObject({ ok: false, problem: { code: 'archive-too-large' } });
});

test('a size that is told wrongly opens nothing that is larger', () => {
  const bytes = archived([{ name: 'a', text: 'x'.repeat(10_000) }]);
  // The size before compression, in the directory at the end of the archive: told as 10 bytes.
  const at = bytes.findIndex(
    (_, i) => bytes[i] === 0x50 && bytes[i + 1] === 0x4b && bytes[i + 2] === 1 && bytes[i + 3] === 2,
  );
  new DataView(bytes.buffer).setUint32(at + 24, 10, true);
  const read = unarchived(bytes);
  if (read.ok) expect(read.value[0]!.text.length).toBeLessThanOrEqual(10);
});

test.each([
  [new Uint8Array(0)],
  [strToU8('PK\u0003\u0004 and nothing of it')],
  [archived([{ name: 'a', text: 'b' }]).slice(0, 30)],
])('what is no archive is refused', (bytes) => {
  expect(unarchived(bytes)).toMatchObject({ ok: false, problem: { code: 'damaged-archive' } });
});
