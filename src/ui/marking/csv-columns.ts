import { COLUMNS, type Column } from '@/core/formats/marking-csv';
import { remember, remembered } from '@/loading/page-memory';

const KEY = 'manege-csv-columns';

/** The columns that are saved: all but those that were left out last time. */
export function columnsKept(): Column[] {
  const out = new Set((remembered(KEY) ?? '').split(','));
  return COLUMNS.filter((column) => !out.has(column));
}

export const keepColumns = (columns: readonly Column[]): void =>
  void remember(KEY, COLUMNS.filter((column) => !columns.includes(column)).join());
