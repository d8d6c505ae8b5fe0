/** Hands a text to the browser to save as a file. */
export function saveFile(name: string, text: BlobPart, type = 'application/json'): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A title as a file name: letters, digits and dashes. */
export function fileName(title: string, ending: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return `${plain || 'manege'}${ending}`;
}
