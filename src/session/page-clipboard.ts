import type { Session } from './session';

/*
 * The clipboard of the page. Browsers give pages the interface for it on https and on this computer alone; a school's
 * network often has neither, so what a person copies goes the old way there, by an event of the browser's own command.
 */

/** Puts a text on the clipboard, within the handling of a press. @returns whether the browser has taken it. */
export async function copyText(text: string): Promise<boolean> {
  if (navigator.clipboard)
    return navigator.clipboard.writeText(text).then(
      () => true,
      () => copyByCommand(text),
    );
  return copyByCommand(text);
}

/** Puts a picture (PNG) on the clipboard, within the handling of a press. @returns whether the browser has taken it. */
export async function copyPicture(picture: Promise<Blob>): Promise<boolean> {
  if (!navigator.clipboard?.write || typeof ClipboardItem === 'undefined') return false;
  // The picture may come later than the press: browsers that ask for both at once take the promise.
  return navigator.clipboard.write([new ClipboardItem({ 'image/png': picture })]).then(
    () => true,
    () => false,
  );
}

function copyByCommand(text: string): boolean {
  let isTaken = false;
  const give = (event: ClipboardEvent) => {
    event.clipboardData?.setData('text/plain', text);
    event.preventDefault();
    event.stopImmediatePropagation();
    isTaken = event.clipboardData !== null;
  };
  window.addEventListener('copy', give, true);
  try {
    return document.execCommand('copy') && isTaken;
  } finally {
    window.removeEventListener('copy', give, true);
  }
}

/** Puts a text on the clipboard and says so. @returns whether the browser has taken it. */
export async function copyAndSay(session: Session, text: string, said: string | null): Promise<boolean> {
  const isTaken = await copyText(text);
  if (!isTaken) session.say('This browser does not let pages write to the clipboard.', 'bad');
  else if (said !== null) session.say(said);
  return isTaken;
}

/** The text on the clipboard; null where the browser does not give it, which is said. */
export async function readClipboard(session: Session): Promise<string | null> {
  const text = navigator.clipboard ? await navigator.clipboard.readText().catch(() => null) : null;
  if (text === null)
    session.say('This browser does not let pages read the clipboard here: press Ctrl V instead.', 'bad');
  return text;
}
