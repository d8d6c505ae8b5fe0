import { COMMANDS } from '@/commands';
import { isHeldKey } from '@/ui/controls/held-keys';

test('a key of a command is kept for the drawing while it is fetched, and no key of the browser', () => {
  const press = (chord: string) => {
    const names = chord === '+' ? ['+'] : chord.split('+');
    const has = (name: string) => names.slice(0, -1).includes(name);
    const key = names.at(-1)!;
    return {
      key: key === 'Space' ? ' ' : has('Ctrl') ? key.toLowerCase() : key,
      ctrlKey: has('Ctrl'),
      metaKey: false,
      altKey: has('Alt'),
      shiftKey: has('Shift'),
    };
  };
  const chords = COMMANDS.flatMap((c) => (c.isBrowserKey ? [] : (c.keys ?? [])));
  // Alt with an arrow also leads back in the browser's history: without a part selected it must.
  expect(chords.filter((chord) => !isHeldKey(press(chord)) && !chord.startsWith('Alt+'))).toEqual([]);
  for (const chord of ['F5', 'F11', 'F12', 'Tab', 'Ctrl+R', 'Ctrl+T', 'Ctrl+L', 'Ctrl+C', 'Ctrl+V'])
    expect([chord, isHeldKey(press(chord))]).toEqual([chord, false]);
});
