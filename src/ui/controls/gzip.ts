import { damagedGzip, GZIP_TYPE, unpacksToMore } from '@/core/formats/gzip';
import { MOST_BYTES } from '@/core/formats/size-limit';
import { done, type Result } from '@/core/values/result';

/** A text as a packed file. */
export const packed = async (text: string): Promise<Blob> =>
  new Response(new Blob([text]).stream().pipeThrough(new CompressionStream('gzip')), {
    headers: { 'Content-Type': GZIP_TYPE },
  }).blob();

/** The bytes of a packed file, of which no more is unpacked than a file may have. */
export async function unpacked(file: Blob): Promise<Result<Blob>> {
  const reader = file.stream().pipeThrough(new DecompressionStream('gzip')).getReader();
  const chunks: BlobPart[] = [];
  let size = 0;
  try {
    for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read()) {
      size += chunk.value.length;
      if (size > MOST_BYTES) {
        void reader.cancel();
        return unpacksToMore();
      }
      chunks.push(chunk.value);
    }
  } catch {
    return damagedGzip();
  }
  return done(new Blob(chunks));
}
