'use client';

import { useState } from 'react';
import type { ParamValue, Part, Symbols } from '@/core/circuit/sheet';
import { kindOf, spokenName } from '@/core/parts/catalogue';
import { readParams } from '@/core/parts/params';
import type { Setting } from '@/core/parts/part-kind';
import { ZERO } from '@/core/values/logic';
import type { Result } from '@/core/values/result';
import { readIn } from '@/core/values/time';
import { numberSelected } from '@/session/changes/arrange';
import { drawBy, relabel, removeSelected, setParam, turnSelected } from '@/session/changes/parts';
import { told } from '@/session/told';
import { useSession } from '@/ui/session/session-context';
import { type PopoverPlace, SheetPopover } from './SheetPopover';

interface Props extends PopoverPlace {
  readonly parts: readonly Part[];
  /** Which field is at hand at once. */
  readonly at: 'label' | 'parameter';
}

/** The settings of parts, beside them. Each change is made at once, to all of them, and can be undone. */
export function PartSettings({ parts, at, place, onClose }: Props) {
  const session = useSession();
  const [part] = parts;
  const kind = kindOf(part!);
  const several = parts.length > 1;
  const [label, setLabel] = useState(several ? '' : part!.label);
  const close = () => {
    onClose();
    if (!several) told(relabel(session, part!.id, label));
    else if (label.trim()) told(numberSelected(session, label));
  };
  const settings = sharedSettings(parts);
  const hasDelay = parts.every((p) => takes(p, 'delayRise'));
  return (
    <SheetPopover
      place={place}
      onClose={close}
      label={several ? `Settings of ${parts.length} parts` : `Settings of ${spokenName(part!)}`}
      className="flex w-72 flex-col gap-2.5 overflow-y-auto p-3"
      onOpen={(content) => {
        const fields = content.querySelectorAll<HTMLElement>('input, select, textarea');
        const field = fields[at === 'parameter' && fields.length > 1 ? 1 : 0];
        field?.focus();
        if (field instanceof HTMLInputElement) field.select();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && event.target instanceof HTMLInputElement) close();
      }}
    >
      <p className="text-sm">
        {several ? (
          <>
            <span className="font-semibold">{parts.length} parts</span>{' '}
            <span className="text-quiet">What is set here is set for all of them.</span>
          </>
        ) : (
          <>
            <span className="font-semibold">{kind.name}</span> <span className="text-quiet">{kind.says}</span>
          </>
        )}
      </p>
      <label className="flex items-center gap-2 text-sm">
        <span className="w-24 shrink-0">{several ? 'Labels from' : 'Label'}</span>
        <input
          className="field"
          value={label}
          maxLength={40}
          placeholder={several ? 'A0: A0, A1, A2 …' : ''}
          onChange={(event) => setLabel(event.target.value)}
        />
      </label>
      {settings.map((setting) => (
        <SettingRow key={setting.param} parts={parts} setting={setting} />
      ))}
      {hasDelay && <DelayRow parts={parts} />}
      {parts.every(hasTwoSymbols) && <SymbolRow parts={parts} />}
      <div className="flex gap-2">
        <button type="button" className="button small flex-1" onClick={() => turnSelected(session)}>
          Turn
        </button>
        <button
          type="button"
          className="button small flex-1"
          onClick={() => {
            onClose();
            return removeSelected(session);
          }}
        >
          Remove
        </button>
      </div>
    </SheetPopover>
  );
}

/** The settings that all of the parts have. */
function sharedSettings(parts: readonly Part[]): readonly Setting[] {
  const [first, ...rest] = parts.map((p) => kindOf(p).settings ?? []);
  return (first ?? []).filter((s) =>
    rest.every((list) => list.some((t) => t.param === s.param && t.control === s.control)),
  );
}

/** Whether a part's kind knows a parameter that need not be there. */
function takes(part: Part, param: string): boolean {
  const read = readParams(kindOf(part), { ...part.params, [param]: 1 });
  return read.ok && param in read.value;
}

/** The common value of a parameter of all parts; null where they differ. */
function common(parts: readonly Part[], param: string): ParamValue | undefined | null {
  const texts = new Set(parts.map((p) => JSON.stringify(p.params[param])));
  return texts.size === 1 ? parts[0]!.params[param] : null;
}

const idsOf = (parts: readonly Part[]) => parts.map((p) => p.id);

/** Whether the two standards draw a part differently. */
function hasTwoSymbols({ kind, params }: Part): boolean {
  const drawn = (standard: Symbols) =>
    JSON.stringify(kindOf({ kind }).symbol(params, { standard, value: () => ZERO, held: false }));
  return drawn('distinctive') !== drawn('rectangular');
}

const SYMBOLS: readonly [Symbols | '', string][] = [
  ['', 'as the lesson'],
  ['distinctive', 'own shape'],
  ['rectangular', 'rectangle'],
];

function SymbolRow({ parts }: { parts: readonly Part[] }) {
  const session = useSession();
  const all = new Set(parts.map((p) => p.symbols ?? ''));
  return (
    <label className="flex items-center gap-2 text-sm">
      <span className="w-24 shrink-0">Symbol</span>
      <select
        className="field"
        value={all.size === 1 ? [...all][0] : 'several'}
        onChange={(event) => drawBy(session, idsOf(parts), (event.target.value || undefined) as Symbols)}
      >
        {all.size > 1 && <option value="several">several</option>}
        {SYMBOLS.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** How long the parts take to answer, in ns; empty for the time that their kind takes. */
function DelayRow({ parts }: { parts: readonly Part[] }) {
  const session = useSession();
  const value = common(parts, 'delayRise');
  const [typed, setTyped] = useState(
    value === undefined || value === null ? '' : String(Number(value) / 1000),
  );
  const [problem, setProblem] = useState('');
  return (
    <div>
      <label className="flex items-center gap-2 text-sm">
        <span className="w-24 shrink-0">Delay</span>
        <input
          className="field"
          inputMode="decimal"
          placeholder={value === null ? 'several' : 'as usual'}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            const ns = readIn('ns', event.target.value);
            if (event.target.value.trim() === '')
              setProblem(wrongWith(setParam(session, idsOf(parts), 'delayRise', undefined)));
            else if (ns === null || ns > 1_000_000)
              setProblem('Delay: from 0 to 1000000 ns, as 12 or 1.5 us, or nothing');
            else setProblem(wrongWith(setParam(session, idsOf(parts), 'delayRise', Math.round(ns * 1000))));
          }}
        />
        <span className="text-quiet">ns</span>
      </label>
      <Problem text={problem} />
    </div>
  );
}

/** The error of a value, for below its field. */
const wrongWith = (set: Result<undefined>) => (set.ok ? '' : set.problem.message);

function Problem({ text }: { text: string }) {
  return text ? (
    <p role="alert" className="mt-1 text-xs text-bad">
      {text}
    </p>
  ) : null;
}

const isMeasure = (unit: string | undefined): unit is 'Hz' | 'ns' | 'ps' =>
  unit === 'Hz' || unit === 'ns' || unit === 'ps';

/** The number that was typed for a setting: a time or a frequency in any unit where the setting is one. */
function readSetting(text: string, unit: string | undefined): number | null {
  if (isMeasure(unit)) return readIn(unit, text);
  const number = Number(text);
  return text.trim() === '' || !Number.isFinite(number) ? null : number;
}

const examples = (unit: string | undefined) =>
  unit === 'Hz' ? ', as 4, 2 kHz or 20 ms' : isMeasure(unit) ? `, as 40 ${unit}, 2 us or 4 Hz` : '';

function SettingRow({ parts, setting }: { parts: readonly Part[]; setting: Setting }) {
  const session = useSession();
  const value = common(parts, setting.param) as string | number | boolean | readonly number[] | null;
  const [typed, setTyped] = useState(Array.isArray(value) ? value.join(' ') : String(value ?? ''));
  const [problem, setProblem] = useState('');
  const change = (next: ParamValue) =>
    setProblem(wrongWith(setParam(session, idsOf(parts), setting.param, next)));
  if (setting.control === 'choice')
    return (
      <label className="flex items-center gap-2 text-sm">
        <span className="w-24 shrink-0">{setting.label}</span>
        <select
          className="field"
          value={String(value ?? '')}
          onChange={(event) =>
            change(setting.options.find((o) => String(o.value) === event.target.value)!.value)
          }
        >
          {value === null && <option value="">several</option>}
          {setting.options.map((o) => (
            <option key={String(o.value)} value={String(o.value)}>
              {o.label}
            </option>
          ))}
        </select>
      </label>
    );
  if (setting.control === 'short')
    return (
      <div>
        <label className="flex items-center gap-2 text-sm">
          <span className="w-24 shrink-0">{setting.label}</span>
          <input
            className="field"
            placeholder={value === null ? 'several' : setting.hint}
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              change(event.target.value.trim());
            }}
          />
        </label>
        <Problem text={problem} />
      </div>
    );
  if (setting.control !== 'number')
    return (
      <div>
        <label className="flex flex-col gap-0.5 text-sm">
          {setting.label}
          <textarea
            className="field h-auto py-1 font-mono text-xs"
            rows={setting.control === 'text' ? 4 : 2}
            spellCheck={false}
            placeholder={setting.hint}
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              if (setting.control === 'text') {
                change(event.target.value);
                return;
              }
              const words = event.target.value.split(/[\s,;]+/).filter(Boolean);
              const wrong = words.find((w) => !/^(0x[0-9a-f]+|0b[01]+|\d+)$/i.test(w));
              if (wrong) setProblem(`“${wrong.slice(0, 20)}” is not a whole number`);
              else change(words.map(Number));
            }}
          />
        </label>
        <Problem text={problem} />
      </div>
    );
  const { least, most, unit, label } = setting;
  return (
    <div>
      <label className="flex items-center gap-2 text-sm">
        <span className="w-24 shrink-0">{label}</span>
        <input
          className="field"
          {...(isMeasure(unit)
            ? { inputMode: 'decimal' }
            : { type: 'number', min: least, max: most, step: 'any' })}
          placeholder={value === null ? 'several' : ''}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            const next = readSetting(event.target.value, unit);
            if (next === null || next < least || next > most)
              setProblem(`${label}: from ${least} to ${most}${unit ? ` ${unit}` : ''}${examples(unit)}`);
            else change(next);
          }}
        />
        {unit && <span className="text-quiet">{unit}</span>}
      </label>
      <Problem text={problem} />
    </div>
  );
}
