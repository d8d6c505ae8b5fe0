import { useState } from 'react';
import { DEFAULT_WAVE } from '@/core/circuit/default-wave';
import { sheetOf } from '@/core/circuit/lesson';
import type { Part } from '@/core/circuit/sheet';
import { PATTERNS, type Stimulus, type Wave } from '@/core/circuit/time-setup';
import type { Terminal } from '@/core/netlist/netlist';
import { kindOf, roleOf } from '@/core/parts/catalogue';
import { drivingOf } from '@/core/simulate/drive';
import { clockAt } from '@/core/simulate/timed-sources';
import { waveProblem } from '@/core/simulate/wave-problem';
import { ONE } from '@/core/values/logic';
import { spokenText } from '@/core/values/markup';
import { sentence } from '@/core/values/result';
import { frequencyText, PS_PER_SECOND, readDuration, timeText } from '@/core/values/time';
import {
  driveThroughAll,
  freshStimulusName,
  putStimulus,
  removeStimulus,
  setTimeSetup,
  withWave,
} from '@/session/changes/time';
import { told } from '@/session/told';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { Marked } from '@/ui/controls/Marked';
import { useSession, useSessionState } from '@/ui/session/session-context';

const FIELD = 'h-7 min-w-0 rounded-lg border border-hairline bg-raised px-1.5';
const SMALL = 'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';

const WORDS: Record<Wave['pattern'], string> = {
  levels: 'levels at moments',
  periodic: 'up and down',
  values: 'a value a step',
  bits: 'a string of bits',
  count: 'counts',
  random: 'by chance',
};

/** The stimulus of each input over time, one line an input. */
export function StimulusPanel({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const inputs = useSessionState((s) => s.netlist.inputs);
  const plan = useSessionState((s) => s.lesson.sheets.find((sheet) => sheet.id === s.rootId)?.time);
  const stimulus: Stimulus = drivingOf(plan) ?? { name: '', inputs: [] };
  const isNew = stimulus.name === '';
  const change = (part: string, wave: Wave | null) => {
    const name = isNew ? freshStimulusName(session) : stimulus.name;
    return putStimulus(
      session,
      withWave({ ...stimulus, name }, part, wave),
      `change the stimulus “${name}”`,
      { was: stimulus.name || name, merge: `stimulus ${name} of ${part}` },
    );
  };
  const rename = (name: string) => {
    const text = name.trim();
    if (!text || text === stimulus.name) return;
    if (plan?.stimuli.some((s) => s.name === text)) session.say(`“${text}” is there already.`, 'bad');
    else
      told(
        putStimulus(session, { ...stimulus, name: text }, `rename the stimulus to “${text}”`, {
          was: stimulus.name || text,
        }),
      );
  };
  return (
    <section
      data-figure="none"
      className="flex max-h-[46%] min-h-28 shrink flex-col gap-1 overflow-auto border-t-2 border-accent bg-paper px-3 py-2 text-sm"
      aria-label="Stimulus"
    >
      <Bar className="flex shrink-0 items-center gap-2">
        <input
          key={stimulus.name}
          className={`${FIELD} w-40 font-semibold`}
          data-shrinks
          aria-label="Name of the stimulus"
          placeholder="Stimulus"
          defaultValue={stimulus.name}
          maxLength={60}
          onBlur={(event) => rename(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
        <button type="button" className={SMALL} onClick={() => driveThroughAll(session, 10_000)}>
          All combinations
        </button>
        {!isNew && (
          <Fold way={1} label="More for the stimulus">
            <button
              type="button"
              className={SMALL}
              onClick={() =>
                putStimulus(session, { ...stimulus, name: freshStimulusName(session) }, 'copy the stimulus')
              }
            >
              Copy
            </button>
            <button
              type="button"
              className={SMALL}
              onClick={() => setTimeSetup(session, { driven: '' }, 'drive the inputs by hand')}
            >
              By hand
            </button>
            <button
              type="button"
              className={`${SMALL} !text-bad`}
              onClick={() => removeStimulus(session, stimulus.name)}
            >
              Delete
            </button>
          </Fold>
        )}
        <button type="button" className={`${SMALL} ml-auto`} onClick={onClose}>
          Close
        </button>
      </Bar>
      <p className="text-quiet">
        Drag along an input's lane above to draw its level or its value, or describe it here.
      </p>
      {inputs.length === 0 && <p className="text-quiet">There is no input yet. Place a switch.</p>}
      <ul className="flex flex-col gap-1">
        {inputs.map((terminal) => (
          <Line
            key={terminal.part}
            terminal={terminal}
            wave={stimulus.inputs.find((i) => i.part === terminal.part)?.wave ?? null}
            onChange={(wave) => change(terminal.part, wave)}
          />
        ))}
      </ul>
    </section>
  );
}

interface LineProps {
  readonly terminal: Terminal;
  readonly wave: Wave | null;
  readonly onChange: (wave: Wave | null) => void;
}

/** One input: its waveform, the fields of that, and the error in them. */
function Line({ terminal, wave, onChange }: LineProps) {
  const name = spokenText(terminal.name);
  const width = terminal.nets.length;
  const problem = wave && waveProblem(wave, width);
  const set = (part: Partial<Wave>) => wave && onChange({ ...wave, ...part });
  const source = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.parts.get(terminal.part));
  return (
    <li className="flex flex-wrap items-center gap-x-2 gap-y-1">
      <span className="w-24 truncate text-right font-semibold">
        <Marked text={terminal.name} />
      </span>
      <select
        className={`${FIELD} w-36`}
        aria-label={`How ${name} goes`}
        value={wave?.pattern ?? ''}
        onChange={(event) => {
          const pattern = event.target.value as Wave['pattern'] | '';
          onChange(pattern === '' ? null : begun(pattern, wave, source));
        }}
      >
        <option value="">by its {source ? kindOf(source).name.toLowerCase() : 'switch'}</option>
        {PATTERNS.map((pattern) => (
          <option key={pattern} value={pattern}>
            {WORDS[pattern]}
          </option>
        ))}
      </select>
      {wave && <Fields name={name} wave={wave} set={set} />}
      {problem && (
        <span role="alert" className="w-full pl-26 text-bad">
          {sentence(problem)}
        </span>
      )}
    </li>
  );
}

/**
 * The wave with which a pattern begins. A square wave has the period of the clock that it drives, and its level at first; where
 * that is low it rises after a whole period, together with the steps of the other inputs.
 */
function begun(pattern: Wave['pattern'], wave: Wave | null, source: Part | undefined): Wave {
  const made = { ...(wave ?? DEFAULT_WAVE), pattern, data: '' };
  if (pattern !== 'periodic' || wave?.pattern === 'periodic') return made;
  const role = source && roleOf(source);
  if (role?.role !== 'input' || role.by !== 'clock') return { ...made, phase: made.step };
  const { low, high } = role.wave;
  const step = low + high;
  return { ...made, step, high, phase: clockAt(role.wave, 0).value === ONE ? 0 : step };
}

function Fields({ name, wave, set }: { name: string; wave: Wave; set: (part: Partial<Wave>) => void }) {
  const { pattern } = wave;
  const hasData = pattern === 'levels' || pattern === 'values' || pattern === 'bits';
  const example = { levels: '10 1, 25 0, 2 us 1', values: '3 0x2 1', bits: '0110 1001' } as Record<
    string,
    string
  >;
  return (
    <>
      {hasData && (
        <Typed
          label={`Data of ${name}`}
          className="min-w-52 flex-1 font-mono"
          value={wave.data}
          example={example[pattern]}
          onTyped={(data) => {
            set({ data });
            return true;
          }}
        />
      )}
      {pattern === 'periodic' && (
        <>
          <Duration
            label={`Period or frequency of ${name}`}
            value={wave.step}
            onTyped={(step) => {
              const high = Math.round(step / 2);
              // What began low begins low.
              set({ step, high, ...(wave.phase === wave.step ? { phase: step } : {}) });
            }}
          />
          <span className="text-quiet">
            {wave.step > 0 && frequencyText(PS_PER_SECOND / wave.step)} · high
          </span>
          <Duration label={`High time of ${name}`} value={wave.high} onTyped={(high) => set({ high })} />
          <span className="text-quiet">from</span>
          <Duration label={`Beginning of ${name}`} value={wave.phase} onTyped={(phase) => set({ phase })} />
        </>
      )}
      {pattern !== 'levels' && pattern !== 'periodic' && (
        <>
          <span className="text-quiet">every</span>
          <Duration label={`Step of ${name}`} value={wave.step} onTyped={(step) => set({ step })} />
        </>
      )}
      {pattern === 'bits' && (
        <select
          className={FIELD}
          aria-label={`Which bit of ${name} comes first`}
          value={wave.first}
          onChange={(event) => set({ first: event.target.value as Wave['first'] })}
        >
          <option value="most">leftmost first</option>
          <option value="least">rightmost first</option>
        </select>
      )}
      {pattern === 'count' && (
        <label className="flex items-center gap-1 text-quiet">
          bit
          <input
            type="number"
            className={`${FIELD} w-14`}
            aria-label={`Bit of the count of ${name}`}
            min={0}
            max={40}
            value={wave.place}
            onChange={(event) =>
              set({ place: Math.min(40, Math.max(0, Math.round(Number(event.target.value)))) })
            }
          />
        </label>
      )}
      {pattern === 'random' && (
        <label className="flex items-center gap-1 text-quiet">
          seed
          <input
            type="number"
            className={`${FIELD} w-20`}
            aria-label={`Seed of ${name}`}
            min={0}
            max={1_000_000_000}
            value={wave.seed}
            onChange={(event) =>
              set({ seed: Math.min(1e9, Math.max(0, Math.round(Number(event.target.value)))) })
            }
          />
        </label>
      )}
      {hasData && (
        <label className="flex items-center gap-1 text-quiet">
          <input
            type="checkbox"
            checked={wave.repeat}
            onChange={(event) => set({ repeat: event.target.checked })}
          />
          over and over
        </label>
      )}
      {(pattern === 'bits' || pattern === 'values') && !wave.repeat && (
        <label className="flex items-center gap-1 text-quiet">
          <input
            type="checkbox"
            checked={wave.endsAtZero}
            onChange={(event) => set({ endsAtZero: event.target.checked })}
          />
          then 0
        </label>
      )}
    </>
  );
}

interface TypedProps {
  readonly label: string;
  readonly value: string;
  readonly example?: string | undefined;
  readonly className?: string;
  /** @returns whether it could be taken. */
  readonly onTyped: (text: string) => boolean;
}

/** A field that is taken as one step of undo when it is left, or by Enter. */
function Typed({ label, value, example, className = '', onTyped }: TypedProps) {
  const [text, setText] = useState<string | null>(null);
  const [isBad, setBad] = useState(false);
  const take = () => {
    if (text === null || text === value) {
      setText(null);
      return;
    }
    const taken = onTyped(text);
    setBad(!taken);
    if (taken) setText(null);
  };
  return (
    <input
      className={`${FIELD} ${className} ${isBad ? '!border-bad' : ''}`}
      aria-label={label}
      aria-invalid={isBad}
      placeholder={example}
      {...hint(label)}
      value={text ?? value}
      maxLength={200_000}
      spellCheck={false}
      onChange={(event) => {
        setBad(false);
        setText(event.target.value);
      }}
      onBlur={take}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') {
          setText(null);
          setBad(false);
        }
      }}
    />
  );
}

/** A time: `20 ns`, `2 us`, a bare number in ns, or a frequency. */
function Duration({
  label,
  value,
  onTyped,
}: {
  label: string;
  value: number;
  onTyped: (ps: number) => void;
}) {
  const session = useSession();
  return (
    <Typed
      label={label}
      className="w-20"
      value={timeText(value)}
      onTyped={(text) => {
        const ps = readDuration(text);
        if (ps === null) {
          session.say(`“${text}” is no time: write 20 ns, 1.5 us, or a frequency such as 4 Hz.`, 'bad');
          return false;
        }
        onTyped(ps);
        return true;
      }}
    />
  );
}
