'use client';

import { useEffect, useRef, useState } from 'react';
import type { Part } from '@/core/circuit/lesson';
import { kindOf, spokenName } from '@/core/parts/catalogue';
import type { Setting } from '@/core/parts/part-kind';
import { changeParams, relabel, removeSelected, turnSelected } from '@/session/commands';
import { useSession } from '@/ui/lesson/session-context';

interface Props {
  readonly part: Part;
  readonly x: number;
  readonly y: number;
  /** Most pixels that it may be high. */
  readonly room: number;
  readonly onClose: () => void;
}

/** What can be set about one part, beside it. Each change is made at once and can be undone. */
export function PartSettings({ part, x, y, room, onClose }: Props) {
  const session = useSession();
  const kind = kindOf(part);
  const [label, setLabel] = useState(part.label);
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.select(), []);
  const close = () => {
    relabel(session, part.id, label);
    onClose();
  };
  return (
    <div
      role="dialog"
      aria-label={`Settings of ${spokenName(part)}`}
      className="absolute z-30 flex w-60 flex-col gap-2.5 overflow-y-auto rounded-xl border border-hairline bg-raised p-3 shadow-lg"
      style={{ left: x, top: y, maxHeight: room }}
      onPointerDown={(event) => event.stopPropagation()}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) close();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape' || (event.key === 'Enter' && event.target instanceof HTMLInputElement))
          close();
      }}
    >
      <p className="text-sm">
        <span className="font-semibold">{kind.name}</span> <span className="text-quiet">{kind.says}</span>
      </p>
      <label className="flex items-center gap-2 text-sm">
        <span className="w-24 shrink-0">Label</span>
        <input
          ref={first}
          className="field"
          value={label}
          maxLength={40}
          onChange={(event) => setLabel(event.target.value)}
        />
      </label>
      {kind.settings?.map((setting) => (
        <SettingRow key={setting.param} part={part} setting={setting} />
      ))}
      <div className="flex gap-2">
        <button type="button" className="button small flex-1" onClick={() => turnSelected(session)}>
          Turn
        </button>
        <button
          type="button"
          className="button small flex-1"
          onClick={() => {
            onClose();
            removeSelected(session);
          }}
        >
          Remove
        </button>
      </div>
    </div>
  );
}

function SettingRow({ part, setting }: { part: Part; setting: Setting }) {
  const session = useSession();
  const value = part.params[setting.param] as string | number | readonly number[];
  const [typed, setTyped] = useState(Array.isArray(value) ? value.join(' ') : String(value));
  const [problem, setProblem] = useState('');
  const change = (next: string | number | readonly number[]) => {
    const params = kindOf(part).params.safeParse({ ...part.params, [setting.param]: next });
    if (!params.success) {
      setProblem(params.error.issues[0]!.message);
      return;
    }
    setProblem('');
    changeParams(session, part.id, params.data);
  };
  if (setting.control === 'choice')
    return (
      <label className="flex items-center gap-2 text-sm">
        <span className="w-24 shrink-0">{setting.label}</span>
        <select
          className="field"
          value={String(value)}
          onChange={(event) =>
            change(setting.options.find((o) => String(o.value) === event.target.value)!.value)
          }
        >
          {setting.options.map((o) => (
            <option key={o.value} value={String(o.value)}>
              {o.label}
            </option>
          ))}
        </select>
      </label>
    );
  if (setting.control !== 'number')
    return (
      <div>
        <label className="flex flex-col gap-0.5 text-sm">
          {setting.label}
          <textarea
            className="field h-auto py-1 font-mono text-xs"
            rows={2}
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
        {problem && (
          <p role="alert" className="mt-1 text-xs text-bad">
            {problem}
          </p>
        )}
      </div>
    );
  const { least, most, unit, label } = setting;
  return (
    <div>
      <label className="flex items-center gap-2 text-sm">
        <span className="w-24 shrink-0">{label}</span>
        <input
          className="field"
          type="number"
          min={least}
          max={most}
          step="any"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            const next = Number(event.target.value);
            if (event.target.value === '' || !Number.isFinite(next) || next < least || next > most)
              setProblem(`${label}: from ${least} to ${most}${unit ? ` ${unit}` : ''}`);
            else change(next);
          }}
        />
        {unit && <span className="text-quiet">{unit}</span>}
      </label>
      {problem && (
        <p role="alert" className="mt-1 text-xs text-bad">
          {problem}
        </p>
      )}
    </div>
  );
}
