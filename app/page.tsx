import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Shelf } from '@/ui/shelf/Shelf';

const DEMOS = [
  'drive-interlock',
  'ticket-adder',
  'queue-selector',
  'organ-drum',
  'lamp-chase',
  'ride-timer',
  'turnstile-total',
];

export default async function Page() {
  const read = (name: string) => readFile(join(process.cwd(), 'demo', `${name}.manege.json`), 'utf8');
  return <Shelf demos={await Promise.all(DEMOS.map(read))} />;
}
