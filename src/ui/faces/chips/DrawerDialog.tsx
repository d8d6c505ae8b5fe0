import { useState } from 'react';
import { readStock } from '@/core/formats/stock-csv';
import { numberText } from '@/core/packages/units';
import { packageCalled } from '@/core/parts/packages';
import { sentence } from '@/core/values/result';
import { chipsSetupOf, setChipsSetup } from '@/session/changes/chips';
import { told } from '@/session/told';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { useSession, useSessionState } from '@/ui/session/session-context';

/** The packages that there are: how many of each, or which are missing. */
export function DrawerDialog({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const readOnly = useSessionState((s) => s.readOnly);
  const setup = chipsSetupOf(session);
  const [stock, setStock] = useState(
    () => setup.stock?.map(({ type, count }) => `${count} x ${numberText(type)}`).join('\n') ?? '',
  );
  const [without, setWithout] = useState(setup.without.join(', '));
  const [problem, setProblem] = useState('');
  const take = () => {
    const left = without.split(/[,\s]+/).filter(Boolean);
    const unknown = left.find((number) => !packageCalled(number) && !packageCalled(`74${number}`));
    if (unknown) return setProblem(`“${unknown}” is no package of the catalogue.`);
    const read = stock.trim() ? readStock(stock) : null;
    if (read && !read.ok) return setProblem(sentence(read.problem));
    told(setChipsSetup(session, { without: left, stock: read?.value }, 'the drawer'));
    onClose();
  };
  return (
    <Modal
      title="Drawer"
      says="The packages that you have. With nothing in here there are enough of each."
      onClose={onClose}
      foot={
        <DialogFoot
          onClose={onClose}
          problem={problem}
          main={{ name: 'Plan with these', isOff: readOnly, onClick: take }}
        />
      }
    >
      <label className="flex flex-col gap-1">
        In the drawer, one package a line
        <textarea
          className="field h-40 font-mono"
          placeholder={'2 x 7408\n1 x 7404'}
          value={stock}
          onChange={(event) => setStock(event.target.value)}
        />
      </label>
      <label className="flex flex-col gap-1">
        Not to be used
        <input
          className="field font-mono"
          placeholder="7402, 7432"
          value={without}
          onChange={(event) => setWithout(event.target.value)}
        />
      </label>
    </Modal>
  );
}
