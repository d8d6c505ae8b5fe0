import { gzipSync } from 'node:zlib';
import { done, refused } from '@/core/values/result';
import { readFiles } from './read-files';
import { fileName } from './save-file';

test('a file of 3 GB is refused by its size, without a byte of it being read', async () => {
  const text = jest.fn();
  const [read] = await readFiles([{ name: 'ride.vcd', size: 3e9, text } as unknown as File]);
  expect(read).toEqual({
    name: 'ride.vcd',
    text: refused('file-too-large', 'it has 2.8 GB; files up to 20.0 MB are opened'),
  });
  expect(text).not.toHaveBeenCalled();
});

test('one file that the browser cannot read does not keep the others from being read', async () => {
  const files = [
    { name: 'gone.vcd', size: 10, text: () => Promise.reject(new Error('gone')) },
    { name: 'here.vcd', size: 10, text: () => Promise.resolve('$end') },
  ] as unknown as File[];
  expect(await readFiles(files)).toEqual([
    { name: 'gone.vcd', text: refused('unreadable', 'the browser could not read it') },
    { name: 'here.vcd', text: done('$end') },
  ]);
});

test('a packed file is read as what it holds; one that is cut, or unpacks to too much, is refused', async () => {
  const bytes = gzipSync('module desk; endmodule');
  const files = [
    new File([bytes], 'desk.v.gz'),
    new File([bytes.subarray(0, 15)], 'cut.v.gz'),
    new File([gzipSync('not packed at all')], 'fine.GZ'),
    new File(['not packed at all'], 'plain.v.gz'),
    new File([gzipSync(Buffer.alloc(21 * 1024 * 1024))], 'bomb.v.gz'),
  ];
  const damaged = refused('damaged-gzip', 'it is not packed as its name says (gzip), or was cut short');
  expect(await readFiles(files)).toEqual([
    { name: 'desk.v', text: done('module desk; endmodule') },
    { name: 'cut.v.gz', text: damaged },
    { name: 'fine', text: done('not packed at all') },
    { name: 'plain.v.gz', text: damaged },
    {
      name: 'bomb.v.gz',
      text: refused('file-too-large', 'it unpacks to more than 20.0 MB, the most of a file'),
    },
  ]);
});

test('a title becomes a file name of letters, digits and dashes', () => {
  expect(fileName('Ride timer, 2nd part!', '.vcd')).toBe('ride-timer-2nd-part.vcd');
  expect(fileName('…', '.csv')).toBe('manege.csv');
});
