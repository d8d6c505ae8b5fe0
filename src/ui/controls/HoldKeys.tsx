import { useLayoutEffect } from 'react';
import { holdKeys } from './held-keys';

/** Stands where something that takes the keyboard is being fetched, and keeps the keys for it. */
export function HoldKeys() {
  useLayoutEffect(() => holdKeys(), []);
  return null;
}
