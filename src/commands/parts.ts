import type { ParamValue, Part } from '@/core/circuit/sheet';
import { kindOf, sheetIdInside } from '@/core/parts/catalogue';
import { DONE, refused, sentence } from '@/core/values/result';
import { mirrorSelected } from '@/session/changes/arrange';
import { blockOfSelection } from '@/session/changes/block';
import { duplicateSelected } from '@/session/changes/clipboard';
import { moveParts, setParam, turnSelected } from '@/session/changes/parts';
import { selectWires } from '@/session/select';
import { told } from '@/session/told';
import { unknownSelected, whyIsItUnknown } from '@/session/why-unknown';
import type { Command } from './command';
import { all, canEdit, NO_GATE, onePart, someParts, somethingSelected } from './conditions';
import type { EditorContext } from './context';
import { pointedPixel } from './place';

/** The one part that is selected. */
function onlyPart({ session }: EditorContext): Part | undefined {
  const { parts } = session.state.selection;
  return parts.size === 1 ? session.sheet.parts.get([...parts][0]!) : undefined;
}

/** The width in bits of a part whose value a person sets (switch, button or port); 0 for any other part. */
function bitsToSet(part: Part | undefined): number {
  const kind = part && kindOf(part);
  const role = kind?.role?.(part!.params);
  return role?.role === 'input' && ['switch', 'button', 'port'].includes(role.by)
    ? kind!.ports(part!.params)[0]!.width
    : 0;
}

const isBlock = (context: EditorContext) => {
  const part = onlyPart(context);
  return part && sheetIdInside(part) !== undefined
    ? DONE
    : refused('no-sheet-inside', 'select a block, or another part with a sheet inside, first');
};

/** Opens the settings of the selected parts. */
const openSettings = ({ session, drawing }: EditorContext) =>
  drawing.open({ is: 'settings', parts: [...session.state.selection.parts], at: 'label' });

/** The commands of Enter for the one selected part: the first that applies is run. */
const USE: readonly Command[] = [
  {
    id: 'part.enter',
    name: 'Go inside',
    group: 'part',
    keys: ['Enter'],
    help: 'flips a switch, goes into a block, or opens the settings',
    words: 'block open sheet',
    when: isBlock,
    run: (context) => context.session.enter(onlyPart(context)!.id),
  },
  {
    id: 'part.flip',
    name: 'Flip',
    group: 'part',
    keys: ['Enter'],
    help: 'flips a switch, goes into a block, or opens the settings',
    words: 'switch button toggle press',
    when: (context) =>
      bitsToSet(onlyPart(context)) === 1 ? DONE : refused('no-switch', 'select a switch or button first'),
    run: (context) => context.session.flip(onlyPart(context)!.id),
  },
  {
    id: 'part.value',
    name: 'Set the value …',
    group: 'part',
    keys: ['Enter'],
    help: 'flips a switch, goes into a block, or opens the settings',
    words: 'input word bus number',
    when: (context) =>
      bitsToSet(onlyPart(context)) > 1
        ? DONE
        : refused('no-bus-input', 'select an input of several bits first'),
    run: (context) => context.drawing.open({ is: 'value', part: onlyPart(context)!.id }),
  },
];

/** The input of a gate on which the menu was opened, by its number among the inputs; null elsewhere. */
function pressedInput({
  session,
  drawing,
}: EditorContext): { readonly part: Part; readonly index: number } | null {
  const popup = drawing.popup();
  const pin = popup?.is === 'actions' ? popup.pin : undefined;
  const part = pin && session.sheet.parts.get(pin.part);
  if (!part || !Array.isArray(part.params.inverted)) return null;
  const inputs = kindOf(part)
    .ports(part.params)
    .filter((port) => port.direction === 'in');
  const index = inputs.findIndex((port) => port.name === pin.port);
  return index === -1 ? null : { part, index };
}

const INVERT: Command = {
  id: 'part.invert-input',
  name: 'Invert this input',
  group: 'part',
  words: 'bubble not negate complement',
  when: all(canEdit, (context) =>
    pressedInput(context) ? DONE : refused('no-input', 'press an input of a gate with the right button'),
  ),
  run: (context) => {
    const { part, index } = pressedInput(context)!;
    const was = part.params.inverted as readonly number[];
    const inverted = was.includes(index) ? was.filter((i) => i !== index) : [...was, index].sort();
    told(setParam(context.session, [part.id], 'inverted', inverted));
  },
};

/** A digit sets how many inputs the selected gates have. */
const INPUTS: readonly Command[] = Array.from({ length: 8 }, (_, i) => i + 2).map((count) => ({
  id: `part.inputs-${count}`,
  name: `Give it ${count} inputs`,
  group: 'part',
  keys: [String(count)],
  help: 'number of inputs of the selected gates',
  words: 'gate width number of inputs',
  undoName: 'set',
  when: all(canEdit, someParts, (context) =>
    gatesIn(context).length > 0
      ? DONE
      : refused(NO_GATE, 'the number of inputs of this part is fixed; select a gate'),
  ),
  run: (context) => {
    const set = setParam(context.session, gatesIn(context), 'inputs', count);
    if (!set.ok) context.session.say(`${count} inputs: ${set.problem.message}.`, 'bad');
  },
}));

const gatesIn = ({ session }: EditorContext): string[] =>
  [...session.state.selection.parts].filter((id) => session.sheet.parts.get(id)?.params.inputs !== undefined);

/** The selected notes that come in sizes, and the sizes from the smallest on. */
function notesIn({ session }: EditorContext): {
  readonly notes: string[];
  readonly sizes: readonly unknown[];
} {
  const parts = [...session.state.selection.parts].flatMap((id) => session.sheet.parts.get(id) ?? []);
  const notes = parts.filter((part) => kindOf(part).isNote && part.params.size !== undefined);
  const setting = notes[0] && kindOf(notes[0]).settings?.find((s) => s.param === 'size');
  return {
    notes: notes.map((part) => part.id),
    sizes: setting?.control === 'choice' ? setting.options.map((o) => o.value) : [],
  };
}

/** The size beside that of the first selected note; undefined where there is none. */
function sizeBeside(context: EditorContext, by: number): ParamValue | undefined {
  const { notes, sizes } = notesIn(context);
  const now = notes[0] && context.session.sheet.parts.get(notes[0])?.params.size;
  return now === undefined ? undefined : (sizes[sizes.indexOf(now) + by] as ParamValue | undefined);
}

const TEXT_SIZES: readonly Command[] = (
  [
    ['larger', '>', 1],
    ['smaller', '<', -1],
  ] as const
).map(([way, key, by]) => ({
  id: `part.text-${way}`,
  name: `Make the text ${way}`,
  group: 'part',
  keys: [key],
  help: 'the text of notes larger or smaller',
  words: 'note words font size',
  undoName: 'set',
  when: all(canEdit, someParts, (context) => {
    if (notesIn(context).notes.length === 0) return refused('no-note', 'select a note first');
    return sizeBeside(context, by) === undefined ? refused('last-size', `it cannot become ${way}`) : DONE;
  }),
  run: (context) => told(setParam(context.session, notesIn(context).notes, 'size', sizeBeside(context, by))),
}));

const DIRECTIONS = [
  ['left', 'ArrowLeft', -1, 0],
  ['right', 'ArrowRight', 1, 0],
  ['up', 'ArrowUp', 0, -1],
  ['down', 'ArrowDown', 0, 1],
] as const;
/** Steps of the grid that an arrow key moves a part with Shift. */
const FAR = 5;

const MOVES: readonly Command[] = DIRECTIONS.flatMap(([name, key, x, y]) =>
  [1, FAR].map(
    (steps): Command => ({
      id: `part.move-${name}${steps > 1 ? '-far' : ''}`,
      name: `Move ${name}${steps > 1 ? `, ${steps} steps` : ''}`,
      group: 'part',
      keys: [steps > 1 ? `Shift+${key}` : key],
      help: `move what is selected; with Shift ${FAR} steps at a time`,
      words: 'nudge shift',
      undoName: 'move',
      when: all(canEdit, someParts),
      run: ({ session }) => moveParts(session, session.state.selection.parts, { x: x * steps, y: y * steps }),
    }),
  ),
);

/** Commands for the selected parts. */
export const PARTS: readonly Command[] = [
  INVERT,
  ...USE,
  ...TEXT_SIZES,
  {
    id: 'part.settings',
    name: 'Label and settings',
    group: 'part',
    keys: ['F2', 'Enter'],
    help: 'label and settings',
    words: 'name rename parameter delay edit',
    when: all(canEdit, someParts),
    run: openSettings,
  },
  {
    id: 'part.change-kind',
    name: 'Change into …',
    group: 'part',
    words: 'kind replace other gate nand nor',
    when: all(canEdit, onePart),
    run: (context) =>
      context.drawing.open({
        is: 'typing',
        at: context.drawing.spot(),
        first: '',
        pull: [],
        pointed: false,
        change: onlyPart(context)!.id,
      }),
  },
  {
    id: 'part.wire',
    name: 'Wire it to …',
    group: 'part',
    keys: ['/'],
    help: 'wires the selected part, or moves an end of the selected wires, by words',
    words: 'connect join',
    when: all(canEdit, onePart),
    run: (context) => context.drawing.open({ is: 'wire', part: onlyPart(context)!.id }),
  },
  {
    id: 'part.select-wires',
    name: 'Select its wires',
    group: 'part',
    when: onePart,
    run: ({ session }) => selectWires(session),
  },
  {
    id: 'part.why-unknown',
    name: 'Why is it unknown?',
    group: 'part',
    keys: ['!'],
    help: 'why what is selected is X or floats',
    words: 'X Z floating undefined explain source',
    when: all(somethingSelected, ({ session }) => {
      const unknown = unknownSelected(session);
      return unknown.ok ? DONE : unknown;
    }),
    run: ({ session }) => {
      const why = whyIsItUnknown(session);
      if (!why.ok) {
        session.say(sentence(why.problem));
        return;
      }
      const { text, parts, isEndedByPowerUp } = why.value;
      session.say(text, 'calm', { lit: parts, ...(isEndedByPowerUp && { offers: 'power-up' }) });
    },
  },
  {
    id: 'part.own-table',
    name: 'Its own table',
    group: 'part',
    keys: ['?'],
    help: 'its own table, with the row of now',
    words: 'truth table try',
    when: onePart,
    run: (context) => context.drawing.open({ is: 'own', part: onlyPart(context)!.id }),
  },
  {
    id: 'part.turn-back',
    name: 'Turn back',
    group: 'part',
    keys: ['['],
    help: 'turn back · turn',
    words: 'rotate anticlockwise',
    undoName: 'turn',
    when: all(canEdit, someParts),
    run: ({ session }) => turnSelected(session, -1),
  },
  {
    id: 'part.turn',
    name: 'Turn',
    group: 'part',
    keys: [']'],
    help: 'turn back · turn',
    words: 'rotate clockwise',
    undoName: 'turn',
    when: all(canEdit, someParts),
    run: ({ session }) => turnSelected(session),
  },
  {
    id: 'part.mirror-across',
    name: 'Mirror left to right',
    group: 'part',
    keys: ['|'],
    help: 'mirror left to right · top to bottom',
    words: 'flip horizontal',
    undoName: 'mirror',
    when: all(canEdit, someParts),
    run: ({ session }) => mirrorSelected(session, 'across'),
  },
  {
    id: 'part.mirror-down',
    name: 'Mirror top to bottom',
    group: 'part',
    keys: ['_'],
    help: 'mirror left to right · top to bottom',
    words: 'flip vertical',
    undoName: 'mirror',
    when: all(canEdit, someParts),
    run: ({ session }) => mirrorSelected(session, 'down'),
  },
  {
    id: 'part.duplicate',
    name: 'Duplicate',
    group: 'part',
    keys: ['Ctrl+D'],
    words: 'copy twice',
    undoName: 'duplicate',
    when: all(canEdit, someParts),
    run: ({ session }) => duplicateSelected(session),
  },
  {
    id: 'part.repeat',
    name: 'Repeat …',
    group: 'part',
    words: 'copies array column row',
    when: all(canEdit, someParts),
    run: (context) => context.drawing.open({ is: 'repeat', at: pointedPixel(context) }),
  },
  {
    id: 'part.block',
    name: 'Make a block of the selection',
    group: 'part',
    words: 'subcircuit sheet hierarchy group',
    undoName: 'make',
    when: all(canEdit, someParts),
    run: ({ session }) => blockOfSelection(session),
  },
  ...INPUTS,
  ...MOVES,
];

/** Runs the command of Enter for one part. */
export function activatePart(context: EditorContext, part: string): void {
  context.session.select({ parts: new Set([part]), wires: new Set() });
  PARTS.find((c) => c.keys?.includes('Enter') && c.when(context).ok)?.run(context);
}
