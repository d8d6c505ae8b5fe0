'use client';

import { useEffect } from 'react';
import { createPortal } from 'react-dom';
import type { Signal } from '@/core/packages/cell-builder';
import { partsList, testedBy } from '@/core/packages/lists';
import { dataSheet, type PlannedPackage } from '@/core/packages/plan';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import { plainText } from '@/core/values/markup';
import { signalName, signalsAtPins } from './pins';
import { pole, stageName } from './WireList';

interface Props {
  readonly title: string;
  readonly planned: SheetPlan;
  readonly onPrinted: () => void;
}

/** The plan on paper: what is needed, each package with the signals at its pins, the wires to be ticked off stage by stage. */
export function PrintedPlan({ title, planned: { plan, wiring, tests }, onPrinted }: Props) {
  useEffect(() => {
    window.addEventListener('afterprint', onPrinted, { once: true });
    window.print();
    return () => window.removeEventListener('afterprint', onPrinted);
  }, [onPrinted]);
  const stages = [...new Set(wiring.wires.map(({ stage }) => stage))];
  return createPortal(
    <article className="printed text-sm">
      <h1 className="text-xl font-bold">{title}</h1>
      <h2 className="mt-3 font-bold">Parts</h2>
      <table>
        <tbody>
          {partsList(plan).map(({ count, part, where }) => (
            <tr key={part}>
              <td className="pr-3 text-right tabular-nums">{count}</td>
              <td className="pr-4">{part}</td>
              <td>{plainText(where)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="mt-3 font-bold">Packages</h2>
      <div className="flex flex-wrap gap-x-8 gap-y-3">
        {plan.packages.map((one) => (
          <PinTable key={one.ref} one={one} names={wiring.names} />
        ))}
      </div>
      {stages.map((stage) => {
        const test = tests.find((one) => one.stage === stage);
        return (
          <section key={stage} className="mt-3">
            <h2 className="font-bold">
              {stageName(stage)}
              {test && <span className="font-normal"> · test: {testedBy(test)}</span>}
            </h2>
            <ul className="columns-2 gap-8">
              {wiring.wires
                .filter((wire) => wire.stage === stage)
                .map(({ from, to, net, colour, why }) => (
                  <li key={`${from} ${to}`} className="break-inside-avoid">
                    ☐ <b className="font-mono">{`${pole(from)} to ${pole(to)}`}</b> {colour}
                    {why ? `, ${why}` : net === from || net.length === 1 ? '' : `, ${plainText(net)}`}
                  </li>
                ))}
            </ul>
          </section>
        );
      })}
    </article>,
    document.body,
  );
}

/** A package as two columns of pins, as it is seen from above, with the signal at each. */
function PinTable({ one, names }: { one: PlannedPackage; names: ReadonlyMap<Signal, string> }) {
  const { pins } = dataSheet(one);
  const signals = signalsAtPins(one);
  const told = (number: number) => signalName(signals.get(number), names);
  return (
    <table className="break-inside-avoid">
      <caption className="text-left">
        <b>{one.ref}</b> {one.name}
      </caption>
      <tbody>
        {pins.slice(0, pins.length / 2).map(({ number }) => {
          const across = pins.length + 1 - number;
          return (
            <tr key={number}>
              <td className="pr-2 text-right">{told(number)}</td>
              <td className="border px-1.5 text-right font-mono">{number}</td>
              <td className="w-10 border-y" />
              <td className="border px-1.5 font-mono">{across}</td>
              <td className="pl-2">{told(across)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
