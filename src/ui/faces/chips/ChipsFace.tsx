'use client';

import { useCallback, useEffect, useState } from 'react';
import type { ChipsSetup } from '@/core/circuit/chips-setup';
import { NO_CHIPS_SETUP } from '@/core/circuit/chips-setup';
import { sheetOf } from '@/core/circuit/lesson';
import { planCsv, planMarkdown } from '@/core/packages/lists';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import { counted, listed } from '@/core/values/wording';
import { setChipsSetup, takeOffer } from '@/session/changes/chips';
import { told } from '@/session/told';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useLitPins } from '@/ui/session/lit-pins';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { useSheetPlan } from '@/ui/session/sheet-plan';
import { PackageCard } from './PackageCard';
import { WireList } from './WireList';

const DrawerDialog = lazyComponent('the drawer', () => import('./DrawerDialog').then((m) => m.DrawerDialog));

const PrintedPlan = lazyComponent('the plan on paper', () =>
  import('./PrintedPlan').then((m) => m.PrintedPlan),
);

const SMALL = 'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';
const FAMILIES: readonly (readonly [ChipsSetup['family'], string])[] = [
  ['74HC', '74HC'],
  ['74LS', '74LS'],
  ['4000B', '4000'],
];

/** The logic packages of the sheet: which gate is in which unit, at which pins, and the wires to lay. */
export function ChipsFace() {
  const session = useSession();
  const { planned, isWorking } = useSheetPlan();
  const title = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.name);
  const isEmpty = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.parts.size === 0);
  const setup = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.chips ?? NO_CHIPS_SETUP);
  const readOnly = useSessionState((s) => s.readOnly);
  const [isDrawer, setDrawer] = useState(false);
  const [isPrinted, setPrinted] = useState(false);
  const printed = useCallback(() => setPrinted(false), []);
  const light = useCrossHighlight((p) => p.light);
  const lightEnds = useCrossHighlight((p) => p.lightEnds);
  useEffect(
    () => () => {
      light(null);
      lightEnds([]);
    },
    [light, lightEnds],
  );
  const change = (part: Partial<ChipsSetup>, what: string) => told(setChipsSetup(session, part, what));
  return (
    <section className="pane" aria-label="Chips">
      <Bar className="pane-head">
        <h2 className="font-semibold">Chips</h2>
        {planned && !isEmpty && <Count planned={planned} />}
        <span className="ml-auto" />
        <Fold way={1} label="More for the chips">
          <label className="flex items-center gap-1.5 whitespace-nowrap">
            Family
            <select
              className="field w-auto py-0.5"
              value={setup.family}
              disabled={readOnly}
              onChange={(event) =>
                change({ family: event.target.value as ChipsSetup['family'] }, 'the logic family')
              }
            >
              {FAMILIES.map(([family, name]) => (
                <option key={family} value={family}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-1.5 whitespace-nowrap">
            <input
              type="checkbox"
              checked={setup.shown}
              disabled={readOnly}
              onChange={(event) => change({ shown: event.target.checked }, 'pins on the drawing')}
            />
            Pins on the drawing
          </label>
          <button type="button" className={SMALL} onClick={() => setDrawer(true)}>
            Drawer
          </button>
          <button
            type="button"
            className={SMALL}
            disabled={!planned}
            {...hint('Parts and wires, for a spreadsheet')}
            onClick={() =>
              planned &&
              saveFile(fileName(title, '-wires.csv'), planCsv(planned.plan, planned.wiring), 'text/csv')
            }
          >
            Save CSV
          </button>
          <button
            type="button"
            className={SMALL}
            disabled={!planned}
            {...hint('Parts and wires, stage by stage')}
            onClick={() =>
              planned &&
              saveFile(
                fileName(title, '-wires.md'),
                planMarkdown(title, planned.plan, planned.wiring, planned.tests),
                'text/markdown',
              )
            }
          >
            Save Markdown
          </button>
          <button
            type="button"
            className={SMALL}
            disabled={!planned}
            {...hint('Parts, packages and wires on paper, to be ticked off')}
            onClick={() => setPrinted(true)}
          >
            Print
          </button>
        </Fold>
      </Bar>
      {isEmpty ? (
        <p className="p-5 text-quiet">The packages of the sheet stand here as soon as a gate is placed.</p>
      ) : planned ? (
        <Shown planned={planned} isWorking={isWorking} />
      ) : (
        <p className="p-5 text-quiet" role="status">
          {isWorking ? 'Planning the packages …' : 'The packages could not be planned.'}
        </p>
      )}
      {isPrinted && planned && <PrintedPlan title={title} planned={planned} onPrinted={printed} />}
      {isDrawer && <DrawerDialog onClose={() => setDrawer(false)} />}
    </section>
  );
}

function Count({ planned: { plan } }: { planned: SheetPlan }) {
  const isSmallest = plan.atLeast === plan.packages.length;
  const bound = isSmallest ? 'the fewest' : `at least ${plan.atLeast}`;
  return (
    <span
      className="head-note"
      data-way={2}
      {...hint(
        isSmallest
          ? 'Proved: no arrangement of these gates takes fewer.'
          : 'No arrangement of these gates takes fewer than that.',
      )}
    >
      {counted(plan.packages.length, 'package')} · {bound}
    </span>
  );
}

function Shown({ planned, isWorking }: { planned: SheetPlan; isWorking: boolean }) {
  const { plan, wiring, tests } = planned;
  const lit = useLitPins(planned);
  const { names } = wiring;
  return (
    <div className="min-h-0 flex-1 overflow-auto" aria-busy={isWorking}>
      <Notes planned={planned} />
      {plan.packages.length > 0 && (
        <div className="flex flex-wrap items-start gap-x-6 gap-y-3 px-4 py-3">
          {plan.packages.map((one) => (
            <PackageCard key={one.ref} one={one} names={names} lit={lit} plan={plan} />
          ))}
        </div>
      )}
      <WireList wiring={wiring} tests={tests} lit={lit} />
    </div>
  );
}

/** What would save packages, what the drawer lacks, and what has no package. */
function Notes({ planned: { plan, offer } }: { planned: SheetPlan }) {
  const session = useSession();
  const readOnly = useSessionState((s) => s.readOnly);
  const lacking = [...plan.lacking].map(([name, count]) => `${count} × ${name}`);
  return (
    <>
      {lacking.length > 0 && (
        <p role="status" className="border-b border-hairline bg-bad/8 px-4 py-1.5 text-sm">
          <strong className="text-bad">The drawer lacks {listed(lacking)}.</strong>
        </p>
      )}
      {plan.unplaced.length > 0 && (
        <ul className="border-b border-hairline px-4 py-1.5 text-sm text-bad">
          {plan.unplaced.map(({ part, why }) => (
            <li key={part}>{why}</li>
          ))}
        </ul>
      )}
      {offer && (
        <p className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hairline bg-accent-soft px-4 py-1.5 text-sm">
          <span>
            <strong>{counted(offer.packages, 'package')}</strong> if {offer.says}.
          </span>
          {!readOnly && !offer.problem && (
            <button type="button" className="button small" onClick={() => told(takeOffer(session, offer))}>
              Do it in the drawing
            </button>
          )}
          {offer.problem && <span className="text-quiet">{offer.problem}</span>}
        </p>
      )}
    </>
  );
}
