// Compresses built files as tightly as it goes, once: node serving/compress.mjs FOLDER < LIST, a file a line. What is compressed already
// stays: names of built files change with their content.
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { text } from 'node:stream/consumers';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const [, , folder] = process.argv;
const WAYS = {
  '.br': (bytes) =>
    promisify(brotliCompress)(bytes, {
      params: {
        [constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT,
        [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY,
        [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
      },
    }),
  '.gz': (bytes) => promisify(gzip)(bytes, { level: constants.Z_BEST_COMPRESSION }),
};

const files = (await text(process.stdin)).split('\n').filter((file) => /\.(js|css)$/.test(file));
await Promise.all(
  files.flatMap((name) => {
    const file = join(folder, name);
    return Object.entries(WAYS).map(async ([end, compress]) => {
      if (existsSync(file + end)) return;
      // A build that is stopped leaves no half of a file, which the next one would take for whole.
      writeFileSync(`${file}${end}.part`, await compress(readFileSync(file)));
      renameSync(`${file}${end}.part`, file + end);
    });
  }),
);
