/** Files of a folder that are taken, at most: more than any class hands in. */
const MOST_FILES = 5000;

/** The files that were dropped, and those inside folders that were dropped; in a folder the hidden ones are passed over. */
export function droppedFiles(dropped: DataTransfer): Promise<File[]> {
  // The entries are there only while the drop is told.
  const entries = [...dropped.items].flatMap((item) => item.webkitGetAsEntry?.() ?? []);
  const files = [...dropped.files];
  if (!entries.some((entry) => entry.isDirectory)) return Promise.resolve(files);
  const found: File[] = [];
  const take = async (entry: FileSystemEntry, isInside: boolean): Promise<void> => {
    if (found.length >= MOST_FILES || (isInside && entry.name.startsWith('.'))) return;
    if (entry.isFile) found.push(await fileOf(entry as FileSystemFileEntry));
    else for (const one of await entriesOf(entry as FileSystemDirectoryEntry)) await take(one, true);
  };
  return entries
    .reduce((before, entry) => before.then(() => take(entry, false)), Promise.resolve())
    .then(() => found);
}

const fileOf = (entry: FileSystemFileEntry): Promise<File> =>
  new Promise((resolve, reject) => entry.file(resolve, reject));

/** A reader gives them some at a time, and an empty list at the end. */
async function entriesOf(folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (some.length === 0) return all;
    all.push(...some);
  }
}
