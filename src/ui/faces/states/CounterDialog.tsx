import { useMemo, useState } from 'react';
import {
  COUNTER_KINDS,
  type Counter,
  type CounterKind,
  counterOf,
  readCycle,
  type Unused,
} from '@/core/synthesis/counter';
import { sentence } from '@/core/values/result';
import { drawCounter } from '@/session/changes/counter';
import { told } from '@/session/told';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { useSession } from '@/ui/session/session-context';

const KINDS: Record<CounterKind, string> = {
  dff: 'D flip-flops',
  tff: 'T flip-flops',
  jkff: 'JK flip-flops',
  srff: 'SR flip-flops',
};
const MOST_ROWS = 64;

/** A counter from its sequence of numbers: excitation table, expressions, and the circuit on a sheet. */
export function CounterDialog({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('0-9');
  const [kind, setKind] = useState<CounterKind>('jkff');
  const [unused, setUnused] = useState<Unused>('either');
  const read = useMemo(() => readCycle(text), [text]);
  const counter = useMemo(
    () => (read.ok ? counterOf({ cycle: read.value, kind, unused }) : null),
    [read, kind, unused],
  );
  return (
    <Modal
      title="Counter from numbers"
      says="The numbers in the order in which they are to come; after the last one the first comes again."
      onClose={onClose}
      foot={
        <DialogFoot
          onClose={onClose}
          main={{
            name: 'Draw it',
            isOff: !counter,
            onClick: () => {
              if (counter) told(drawCounter(session, counter));
              onClose();
            },
          }}
        />
      }
    >
      <label className="flex items-center gap-2">
        <span className="w-24">Numbers</span>
        <input
          className="field font-mono"
          value={text}
          maxLength={2000}
          aria-label="Numbers in order"
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {!read.ok && (
        <p role="alert" className="text-bad">
          {sentence(read.problem)}
        </p>
      )}
      <div className="flex flex-wrap gap-4">
        <label className="flex items-center gap-2">
          Of
          <select
            className="field w-auto"
            value={kind}
            onChange={(event) => setKind(event.target.value as CounterKind)}
          >
            {(Object.keys(COUNTER_KINDS) as CounterKind[]).map((one) => (
              <option key={one} value={one}>
                {KINDS[one]}
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-2">
          Other numbers lead
          <select
            className="field w-auto"
            value={unused}
            onChange={(event) => setUnused(event.target.value as Unused)}
          >
            <option value="either">where it is simplest</option>
            <option value="first">to the first number</option>
          </select>
        </label>
      </div>
      {counter && <Worked counter={counter} />}
    </Modal>
  );
}

function Worked({ counter }: { counter: Counter }) {
  const { table, inputs, expressions } = counter;
  return (
    <>
      <div className="max-h-64 overflow-auto rounded-lg border border-hairline bg-raised">
        <table className="w-full text-center font-mono text-sm">
          <caption className="sr-only">Excitation table</caption>
          <thead className="sticky top-0 bg-raised font-sans">
            <tr className="border-b-2 border-ink">
              <th className="px-2">now</th>
              <th className="px-2">next</th>
              {inputs.map((name) => (
                <th key={name} className="px-2">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.slice(0, MOST_ROWS).map(({ state, next, inputs: needed }) => (
              <tr key={state} className={`border-b border-hairline ${next === null ? 'text-quiet' : ''}`}>
                <td>{state}</td>
                <td>{next ?? '–'}</td>
                {needed.map((value, i) => (
                  <td key={inputs[i]}>{value}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <ul className="columns-2 gap-6">
        {expressions.map(({ name, text }) => (
          <li key={name}>
            <b>{name}</b> = {text}
          </li>
        ))}
      </ul>
    </>
  );
}
