'use client';

import { useState } from 'react';
import { COLUMNS, type Column } from '@/core/formats/marking-csv';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { columnsKept, keepColumns } from './csv-columns';

interface Props {
  /** Whether there is a class list, with numbers and groups. */
  readonly hasList: boolean;
  readonly onSave: (columns: readonly Column[]) => void;
  readonly onClose: () => void;
}

/** Which columns the file for the spreadsheet has; they are remembered. */
export function CsvDialog({ hasList, onSave, onClose }: Props) {
  const [columns, setColumns] = useState<readonly Column[]>(columnsKept);
  const offered = COLUMNS.filter((column) => column !== 'number and group' || hasList);
  const save = () => {
    keepColumns(columns);
    onSave(columns);
    onClose();
  };
  return (
    <Modal
      title="Columns"
      says="A line for each student, for a spreadsheet or a course page: the name, and what is chosen here."
      onClose={onClose}
      foot={<DialogFoot onClose={onClose} main={{ name: 'Save the file', onClick: save }} />}
    >
      <fieldset className="grid grid-cols-2 gap-2" aria-label="Columns besides the name">
        {offered.map((column) => (
          <label key={column} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={columns.includes(column)}
              onChange={(event) =>
                setColumns(
                  COLUMNS.filter((one) => (one === column ? event.target.checked : columns.includes(one))),
                )
              }
            />
            {column}
          </label>
        ))}
      </fieldset>
    </Modal>
  );
}
