import { done, refused } from '@/core/values/result';
import { fileName, readFiles } from './files';

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

test('a title becomes a file name of letters, digits and dashes', () => {
  expect(fileName('Ride timer, 2nd part!', '.vcd')).toBe('ride-timer-2nd-part.vcd');
  expect(fileName('…', '.csv')).toBe('manege.csv');
});
