import { xchacha20poly1305 } from '@noble/ciphers/chacha';
import { x25519 } from '@noble/curves/ed25519';
import { hkdf } from '@noble/hashes/hkdf';
import { scrypt } from '@noble/hashes/scrypt';
import { sha256 } from '@noble/hashes/sha2';
import { concatBytes, randomBytes, utf8ToBytes } from '@noble/hashes/utils';
import { done, type Result, refused } from '../values/result';
import { fromBase64Url, toBase64Url } from './base64url';

/*
 * What a student is not to read is sealed to the teacher's key: key agreement on Curve25519 (RFC 7748) with a key pair that is
 * made for this one box, HKDF with SHA-256 (RFC 5869), and XChaCha20-Poly1305 (RFC 8439 with the extended nonce of
 * draft-irtf-cfrg-xchacha). All of it from an audited package: the browser's own tools are missing on plain HTTP.
 */

/** A teacher's keys, 32 bytes each in base64url. */
export interface KeyPair {
  readonly publicKey: string;
  readonly secretKey: string;
}

const KEY_BYTES = 32;
const NONCE_BYTES = 24;
/** Boxes are as long as the next multiple of this, so that their length tells little. */
const PADDED_TO = 256;
const LENGTH_BYTES = 4;

export function newKeyPair(): KeyPair {
  const secret = x25519.utils.randomPrivateKey();
  return { secretKey: toBase64Url(secret), publicKey: toBase64Url(x25519.getPublicKey(secret)) };
}

function keyFor(shared: Uint8Array, once: Uint8Array, to: Uint8Array): Uint8Array {
  return hkdf(sha256, shared, concatBytes(once, to), utf8ToBytes('manege sealed answer 1'), KEY_BYTES);
}

/** The text with its length before it and zeros behind it. */
function padded(text: string): Uint8Array {
  const bytes = utf8ToBytes(text);
  const size = Math.ceil((bytes.length + LENGTH_BYTES) / PADDED_TO) * PADDED_TO;
  const whole = new Uint8Array(size);
  new DataView(whole.buffer).setUint32(0, bytes.length);
  whole.set(bytes, LENGTH_BYTES);
  return whole;
}

/** Seals a text to a public key: another box each time. */
export function seal(text: string, publicKey: string): string {
  const to = fromBase64Url(publicKey);
  const secret = x25519.utils.randomPrivateKey();
  const once = x25519.getPublicKey(secret);
  const nonce = randomBytes(NONCE_BYTES);
  const key = keyFor(x25519.getSharedSecret(secret, to), once, to);
  return toBase64Url(concatBytes(once, nonce, xchacha20poly1305(key, nonce).encrypt(padded(text))));
}

/** Opens a box with the keys to which it was sealed. */
export function unseal(box: string, { publicKey, secretKey }: KeyPair): Result<string> {
  try {
    const bytes = fromBase64Url(box);
    const once = bytes.subarray(0, KEY_BYTES);
    const nonce = bytes.subarray(KEY_BYTES, KEY_BYTES + NONCE_BYTES);
    const shared = x25519.getSharedSecret(fromBase64Url(secretKey), once);
    const key = keyFor(shared, once, fromBase64Url(publicKey));
    const whole = xchacha20poly1305(key, nonce).decrypt(bytes.subarray(KEY_BYTES + NONCE_BYTES));
    const length = new DataView(whole.buffer, whole.byteOffset).getUint32(0);
    return done(new TextDecoder().decode(whole.subarray(LENGTH_BYTES, LENGTH_BYTES + length)));
  } catch {
    return refused('other-key', 'it is sealed to another key, or damaged');
  }
}

/** Work that a passphrase costs: 2^15 rounds over 32 MB, about a tenth of a second. */
const SCRYPT = { N: 2 ** 15, r: 8, p: 1, dkLen: KEY_BYTES };
const SALT_BYTES = 16;

/** Keys under a passphrase (scrypt, RFC 7914). */
export interface LockedKeys {
  readonly publicKey: string;
  readonly salt: string;
  readonly box: string;
}

export function lockKeys({ publicKey, secretKey }: KeyPair, passphrase: string): LockedKeys {
  const salt = randomBytes(SALT_BYTES);
  const nonce = randomBytes(NONCE_BYTES);
  const key = scrypt(passphrase.normalize('NFKC'), salt, SCRYPT);
  const box = concatBytes(nonce, xchacha20poly1305(key, nonce).encrypt(fromBase64Url(secretKey)));
  return { publicKey, salt: toBase64Url(salt), box: toBase64Url(box) };
}

export function unlockKeys({ publicKey, salt, box }: LockedKeys, passphrase: string): Result<KeyPair> {
  try {
    const key = scrypt(passphrase.normalize('NFKC'), fromBase64Url(salt), SCRYPT);
    const bytes = fromBase64Url(box);
    const nonce = bytes.subarray(0, NONCE_BYTES);
    const secret = xchacha20poly1305(key, nonce).decrypt(bytes.subarray(NONCE_BYTES));
    if (toBase64Url(x25519.getPublicKey(secret)) !== publicKey)
      return refused('damaged', 'the key file is damaged');
    return done({ publicKey, secretKey: toBase64Url(secret) });
  } catch {
    return refused('wrong-passphrase', 'the passphrase is not the one of this file');
  }
}
