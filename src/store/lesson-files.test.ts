import 'fake-indexeddb/auto';
import type { LessonFileRecord } from './database';
import { eachOnce } from './lesson-files';

/** A file as the browser hands it out: two handles may be of one file. */
const file = (lesson: string, name: string, folder: string): LessonFileRecord => ({
  lesson,
  modified: 0,
  handle: {
    name,
    folder,
    isSameEntry: async (other: { name: string; folder: string }) =>
      other.name === name && other.folder === folder,
  } as unknown as FileSystemFileHandle,
});

test('a file that several lessons were opened from stands once, under the first', async () => {
  const files = [
    file('a', 'gate.manege.json', 'monday'),
    file('b', 'gate.manege.json', 'tuesday'),
    file('c', 'gate.manege.json', 'monday'),
    file('d', 'fare.manege.json', 'monday'),
  ];
  expect((await eachOnce(files, 8)).map(({ lesson }) => lesson)).toEqual(['a', 'b', 'd']);
  expect((await eachOnce(files, 2)).map(({ lesson }) => lesson)).toEqual(['a', 'b']);
  expect(await eachOnce([], 8)).toEqual([]);
});
