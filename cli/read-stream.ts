import { constants, open } from 'node:fs/promises';
import { setTimeout as pause } from 'node:timers/promises';
import { MOST_BYTES, tooLarge } from '../src/core/formats/size-limit';
import { BadInput } from './bad-input';

/** Milliseconds of silence after which a pipe is given up. */
const SILENCE_MS = 10_000;
const LOOK_EVERY_MS = 20;

/**
 * The text that comes through a pipe or a device: up to its end, to the size of the largest file, or until nothing has come
 * for ten seconds.
 * @throws BadInput
 */
export async function readStream(file: string): Promise<string> {
  // Opening a pipe that nobody writes would wait for ever.
  const from = await open(file, constants.O_RDONLY | constants.O_NONBLOCK);
  try {
    const parts: Buffer[] = [];
    let size = 0;
    let quiet = 0;
    for (;;) {
      const buffer = Buffer.alloc(65_536);
      const read = await from.read(buffer).then(
        ({ bytesRead }) => bytesRead,
        (error: NodeJS.ErrnoException) => {
          if (error.code === 'EAGAIN') return null;
          throw error;
        },
      );
      if (read === 0 && size > 0) return Buffer.concat(parts).toString('utf8');
      if (read) {
        quiet = 0;
        size += read;
        parts.push(buffer.subarray(0, read));
        if (size > MOST_BYTES) throw new BadInput(`${file}: ${tooLarge(size)!.message}`);
        continue;
      }
      if (quiet >= SILENCE_MS) throw new BadInput(`${file}: nothing came from it for ${SILENCE_MS / 1000} s`);
      quiet += LOOK_EVERY_MS;
      await pause(LOOK_EVERY_MS);
    }
  } finally {
    await from.close();
  }
}
