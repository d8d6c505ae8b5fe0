import { NO_MARKS, withPoints } from '../exercise/teacher-marks';
import { newKeyPair } from '../sealing/seal';
import { expectDone } from '../values/result';
import { marksIn, readMarking, writeMarking, writeSealedMarking } from './marking-file';

const exercise = { id: 'exercise-1', title: 'Half adder' };
const marks = withPoints(NO_MARKS, { handIn: 'ada', task: { id: 'task1' } } as never, 2.5);
const keys = newKeyPair();

test('a marking comes back from its file, open or under the teacher’s key', () => {
  const open = expectDone(readMarking(writeMarking(exercise, marks)));
  expect(open.exercise).toEqual(exercise);
  expect(expectDone(marksIn(open, null))).toEqual(marks);
  const text = writeSealedMarking(exercise, marks, keys.publicKey);
  expect(text).not.toContain('2.5');
  const sealed = expectDone(readMarking(text));
  expect(expectDone(marksIn(sealed, keys))).toEqual(marks);
  expect(marksIn(sealed, newKeyPair())).toMatchObject({ problem: { code: 'other-key' } });
  expect(marksIn(sealed, null)).toMatchObject({ problem: { code: 'other-key' } });
});

test('a file without marks, with both, or with strange ones is refused', () => {
  const file = (change: object) => {
    const read = readMarking(JSON.stringify({ ...JSON.parse(writeMarking(exercise, marks)), ...change }));
    return read.ok ? null : read.problem.message;
  };
  expect(file({ marks: undefined })).toContain('holds no marks');
  expect(file({ sealed: { to: 'a', box: 'b' } })).toContain('holds them twice');
  expect(
    file({ marks: { ...marks, handIns: { ada: { task1: { points: 1e9, remarks: [], without: [] } } } } }),
  ).toContain('handIns');
  expect(file({ version: 2 })).toContain('version 2');
  const forged = { to: keys.publicKey, box: 'AAAA' };
  expect(marksIn({ exercise, marks: null, sealed: forged }, keys).ok).toBe(false);
});
