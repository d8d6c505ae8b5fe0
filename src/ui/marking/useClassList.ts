import { useEffect, useState } from 'react';
import type { ClassList } from '@/core/exercise/class-list';
import { load } from '@/loading/load';
import { keptClassList, saveClassList } from '@/store/class-list';
import { storeReady } from '@/store/database';
import { readFiles } from '@/ui/controls/read-files';

/**
 * The class list of this browser, and how another one is taken.
 * @param refuse is told why a file is none.
 * @param fail is told what went wrong with the store.
 */
export function useClassList(refuse: (text: string) => void, fail: (error: unknown) => void) {
  const [classList, setClassList] = useState<ClassList | null>(null);
  const keepClass = (list: ClassList | null) => {
    setClassList(list);
    saveClassList(list).catch(fail);
  };
  const takeClass = async (files: File[]) => {
    const [file] = await readFiles(files.slice(0, 1));
    if (!file) return;
    const { readClassList } = await load(
      'the reader of class lists',
      () => import('@/core/formats/class-list'),
    );
    const read = file.text.ok ? readClassList(file.text.value) : file.text;
    if (read.ok) keepClass({ students: read.value, joined: classList?.joined ?? {} });
    else refuse(`${file.name}: ${read.problem.message}.`);
  };
  useEffect(() => {
    storeReady()
      .then(keptClassList)
      .then(setClassList, () => {});
  }, []);
  return { classList, keepClass, takeClass };
}
