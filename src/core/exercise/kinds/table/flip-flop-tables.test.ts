import { characteristicTable, excitationTable, FLIP_FLOPS } from './flip-flop-tables';
import type { WholeTable } from './set-up';

const columnsOf = ({ columns }: WholeTable) =>
  Object.fromEntries(columns.map(({ name, cells }) => [name, cells.join('')]));

test('every kind of flip-flop has both', () => {
  expect(FLIP_FLOPS.map(({ kind }) => kind)).toEqual(['dff', 'jkff', 'tff', 'srff']);
});

test.each([
  ['dff', { D: '0011', Q: '0101', 'Q+': '0011' }],
  ['tff', { T: '0011', Q: '0101', 'Q+': '0110' }],
  ['jkff', { J: '00001111', K: '00110011', Q: '01010101', 'Q+': '01001110' }],
  ['srff', { S: '00001111', R: '00110011', Q: '01010101', 'Q+': '010011xx' }],
])('the characteristic table of %s', (kind, wanted) => {
  expect(columnsOf(characteristicTable(kind))).toEqual(wanted);
});

test.each([
  ['dff', { Q: '0011', 'Q+': '0101', D: '0101' }],
  ['tff', { Q: '0011', 'Q+': '0101', T: '0110' }],
  ['jkff', { Q: '0011', 'Q+': '0101', J: '01xx', K: 'xx10' }],
  ['srff', { Q: '0011', 'Q+': '0101', S: '010x', R: 'x010' }],
])('the excitation table of %s', (kind, wanted) => {
  expect(columnsOf(excitationTable(kind))).toEqual(wanted);
});
