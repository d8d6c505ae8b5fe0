import { readClassList } from '../formats/class-list';
import { expectDone } from '../values/result';
import { attendanceOf, withJoined } from './class-list';

const list = {
  students: expectDone(
    readClassList(
      'Number,Name,Group\n17,Ada Sample,A\n18,"Sample, Bén",A\n19,Cleo Sample,B\n20,Dana Other,B\n',
    ),
  ),
  joined: {},
};

test('a list is read with commas or semicolons, by names in one column or in two', () => {
  expect(list.students[1]).toEqual({ number: '18', name: 'Sample, Bén', group: 'A' });
  expect(expectDone(readClassList('\uFEFFSurname;First name;Class\r\nSample;Ada;3b\r\n;;\r\n'))).toEqual([
    { name: 'Ada Sample', number: '', group: '3b' },
  ]);
  expect(readClassList('who,mark\nAda,1')).toMatchObject({
    problem: { message: 'it needs a column called name, or first name and last name' },
  });
  expect(readClassList('name\n"Ada').ok).toBe(false);
});

test('who is missing is told; capitals, accents and the order of words do not count', () => {
  const { students, missing, unknown } = attendanceOf(list, ['ada SAMPLE', 'Ben Sample']);
  expect([...students].map(([name, { number }]) => [name, number])).toEqual([
    ['ada SAMPLE', '17'],
    ['Ben Sample', '18'],
  ]);
  expect(missing.map(({ name }) => name)).toEqual(['Cleo Sample', 'Dana Other']);
  expect(unknown).toEqual([]);
});

test('a name that is written otherwise is offered, and joined only when that is said', () => {
  const before = attendanceOf(list, ['Clio Sample', 'D. Other', 'Nobody Known']);
  expect(before.unknown.map(({ name, like }) => [name, like?.name ?? null])).toEqual([
    ['Clio Sample', 'Cleo Sample'],
    ['D. Other', 'Dana Other'],
    ['Nobody Known', null],
  ]);
  expect(before.missing).toHaveLength(4);
  const joined = withJoined(list, 'Clio Sample', before.unknown[0]!.like!);
  const after = attendanceOf(joined, ['Clio Sample']);
  expect(after.students.get('Clio Sample')?.number).toBe('19');
  expect(after.missing.map(({ name }) => name)).not.toContain('Cleo Sample');
  // A name like a property of every object is a name.
  expect(attendanceOf(list, ['constructor']).unknown).toHaveLength(1);
});
