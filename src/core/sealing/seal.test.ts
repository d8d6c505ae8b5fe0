import fc from 'fast-check';
import { expectDone } from '../values/result';
import { fromBase64Url } from './base64url';
import { lockKeys, newKeyPair, seal, unlockKeys, unseal } from './seal';

const mine = newKeyPair();

test('a box gives back what was put in, to its own key alone', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 3000, unit: 'grapheme' }), (text) => {
      const box = seal(text, mine.publicKey);
      expect(expectDone(unseal(box, mine))).toBe(text);
    }),
    { numRuns: 20 },
  );
  expect(unseal(seal('no', mine.publicKey), newKeyPair())).toMatchObject({ problem: { code: 'other-key' } });
});

test('a box that was touched anywhere does not open', () => {
  const box = seal('01101', mine.publicKey);
  for (const at of [0, 20, 50, box.length - 4]) {
    const touched = box.slice(0, at) + (box[at] === 'A' ? 'B' : 'A') + box.slice(at + 1);
    expect(unseal(touched, mine).ok).toBe(touched === box);
  }
  for (const strange of ['', '%%%', 'AAAA']) expect(unseal(strange, mine).ok).toBe(false);
});

test('boxes of different answers are of one size, and tell nothing of them', () => {
  const [a, b, c] = ['0', '1'.repeat(250), '0'].map((text) => seal(text, mine.publicKey));
  expect(new Set([a!.length, b!.length, c!.length]).size).toBe(1);
  expect(a).not.toBe(c);
  // No two places of two boxes agree more often than chance lets them.
  const [x, y] = [fromBase64Url(a!), fromBase64Url(c!)];
  const same = x.filter((byte, i) => byte === y[i]).length;
  expect(same).toBeLessThan(x.length / 20);
});

test('keys come back from under their passphrase, however it is typed', () => {
  const locked = lockKeys(mine, 'Karussell für drei');
  expect(JSON.stringify(locked)).not.toContain(mine.secretKey);
  expect(expectDone(unlockKeys(locked, 'Karussell fu\u0308r drei'))).toEqual(mine);
  expect(unlockKeys(locked, 'Karussell')).toMatchObject({ problem: { code: 'wrong-passphrase' } });
  expect(unlockKeys({ ...locked, publicKey: newKeyPair().publicKey }, 'Karussell für drei').ok).toBe(false);
});
