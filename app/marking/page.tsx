import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Marking } from '@/ui/marking/Marking';

export const metadata = { title: 'Marking · Manege' };

const HAND_INS = ['ada', 'ben', 'cleo'];

export default async function Page() {
  const read = (name: string) => readFile(join(process.cwd(), 'demo', 'exercise', name), 'utf8');
  const handIns = await Promise.all(
    HAND_INS.map(async (name) => ({ name: `${name}.handin.json`, text: await read(`${name}.handin.json`) })),
  );
  return <Marking samples={{ exercise: await read('warning-lamp.exercise.json'), handIns }} />;
}
