import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as commandList from '@/commands';
import { EXPECTED_KINDS } from '@/core/exercise/expected';
import { TASK_KINDS } from '@/core/exercise/kinds';
import { FORMATS } from '@/core/formats/kinds';
import { CATALOGUE } from '@/core/parts/catalogue';
import { FORMS } from '@/ui/exercise/forms';
import { VIEWS } from '@/ui/exercise/kinds';
import { FACES } from '@/ui/faces';

const root = join(__dirname, '..');
const guide = readFileSync(join(__dirname, 'adding.md'), 'utf8');

/** The entries of a folder: folders alone, or files alone without tests and the list itself. */
function entriesOf(folder: string, kind: 'folders' | 'files'): string[] {
  return readdirSync(join(root, folder), { withFileTypes: true })
    .filter((entry) =>
      kind === 'folders' ? entry.isDirectory() : entry.isFile() && !/^index\.|\.test\./.test(entry.name),
    )
    .map((entry) => entry.name.replace(/\.tsx?$/, ''));
}

test('every file and folder that the guide names is there', () => {
  const named = [...guide.matchAll(/`((?:src|docs)\/[^`]+)`/g)].map(([, path]) => path!);
  expect(named.length).toBeGreaterThan(10);
  expect(named.filter((path) => !existsSync(join(root, path)))).toEqual([]);
});

test('every folder of a face is in the list of faces, under its own name', () => {
  expect(FACES.map((face) => face.id).sort()).toEqual(entriesOf('src/ui/faces', 'folders').sort());
});

test('every folder of a kind of task is in the list of kinds, under its own name, and has its views', () => {
  const kinds = TASK_KINDS.map((kind) => kind.kind as string);
  expect(kinds.sort()).toEqual(entriesOf('src/core/exercise/kinds', 'folders').sort());
  expect(VIEWS.map(({ kind }) => kind).sort()).toEqual(kinds);
  expect(FORMS.map(({ kind }) => kind).sort()).toEqual(kinds);
});

test('every folder of an expectation is in the list of them, under its own name', () => {
  const kinds = EXPECTED_KINDS.map((kind) => kind.kind as string);
  expect(kinds.sort()).toEqual(entriesOf('src/core/exercise/expected', 'folders').sort());
});

test('every file of a format is in the list of formats', () => {
  expect(FORMATS).toHaveLength(entriesOf('src/core/formats/kinds', 'files').length);
  for (const { id, read, write, paintedAt } of FORMATS)
    expect([id, Boolean(read ?? write ?? paintedAt)]).toEqual([id, true]);
});

test('every record of a command is in the list of commands', async () => {
  const listed = new Set<object>(commandList.COMMANDS);
  for (const file of entriesOf('src/commands', 'files')) {
    const module: Record<string, unknown> = await import(`@/commands/${file}`);
    for (const [name, value] of Object.entries(module)) {
      const records = (Array.isArray(value) ? value : [value]).filter(
        (v): v is object => typeof v === 'object' && v !== null && 'when' in v && 'run' in v,
      );
      for (const record of records) expect([file, name, listed.has(record)]).toEqual([file, name, true]);
    }
  }
});

test('every part that a file of a family defines is in the catalogue', () => {
  const families = entriesOf('src/core/parts', 'files').flatMap((file) => {
    const source = readFileSync(join(root, 'src/core/parts', `${file}.ts`), 'utf8');
    return /\bdefine(Part|Box)\(/.test(source) && !file.startsWith('define-') ? [file] : [];
  });
  expect(families.length).toBeGreaterThan(5);
  const list = readFileSync(join(root, 'src/core/parts/catalogue.ts'), 'utf8');
  expect(families.filter((file) => !list.includes(`'./${file}'`) && !isPartOfOther(file))).toEqual([]);
  expect(new Set(CATALOGUE.map((kind) => kind.kind)).size).toBe(CATALOGUE.length);
});

/** Whether another file of the parts takes a family in. */
function isPartOfOther(file: string): boolean {
  return entriesOf('src/core/parts', 'files').some((other) =>
    readFileSync(join(root, 'src/core/parts', `${other}.ts`), 'utf8').includes(`from './${file}'`),
  );
}
