import { namesTogether, stateWords } from './words';

test('the bits of a bus stand together', () => {
  expect(namesTogether(['Total[2]', 'Total[1]', 'Total[0]', 'Turn'])).toBe('Total[2:0] Turn');
  expect(namesTogether(['A[1]', 'B[1]', 'B[0]'])).toBe('A[1] B[1:0]');
  expect(namesTogether(['Q2', 'Q1', 'Q0'])).toBe('Q2 Q1 Q0');
  expect(namesTogether([])).toBe('');
});

test('a state is called by its name, its number, or its letters where one is unknown', () => {
  const names = new Map([['101', 'Last']]);
  expect(['101', '110', '1X0'].map((code) => stateWords(code, names))).toEqual(['Last', '6', '1X0']);
});
