/** What browsers have that let a page come back to files of earlier visits. */
interface AskedHandle {
  requestPermission?(want: { readonly mode: 'read' | 'readwrite' }): Promise<PermissionState>;
}

/** Whether a page may read a file of an earlier visit, or write to it; the browser may ask the person. */
export async function isAllowed(handle: FileSystemFileHandle, mode: 'read' | 'readwrite'): Promise<boolean> {
  const allowed = await (handle as AskedHandle).requestPermission?.({ mode });
  return allowed === undefined || allowed === 'granted';
}

/** Why a file of an earlier visit was not opened, as it follows its name. */
export const whyNotOpened = (error: unknown): string =>
  error instanceof Error && error.name === 'NotFoundError' ? 'is not there any more' : 'could not be opened';
