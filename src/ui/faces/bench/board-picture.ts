import type { Wiring } from '@/core/packages/wiring';
import { saveFile } from '@/ui/controls/save-file';
import { PITCH } from './layout';

/*
 * The board as it is drawn on the page, as a file and on paper: the same shapes, with their colours written out.
 */

/** A hole is a tenth of an inch from the next. */
const MM_PER_PITCH = 2.54;
/** Pixels of a PNG for each unit of the drawing. */
const SHARP = 3;

/** The drawing with every colour of the theme written out, by itself. */
function standalone(svg: SVGSVGElement): {
  readonly text: string;
  readonly width: number;
  readonly height: number;
} {
  const { width, height } = svg.viewBox.baseVal;
  const copy = svg.cloneNode(true) as SVGSVGElement;
  for (const guide of copy.querySelectorAll('[data-next]')) guide.remove();
  const theme = getComputedStyle(document.documentElement);
  const colour = (text: string) =>
    text.replace(/var\((--[\w-]+)\)/g, (_, name) => theme.getPropertyValue(name).trim() || '#000');
  for (const element of [copy, ...copy.querySelectorAll('*')]) {
    for (const { name, value } of [...element.attributes])
      if (value.includes('var(')) element.setAttribute(name, colour(value));
    const isMono = element.classList.contains('font-mono');
    for (const name of ['class', 'tabindex', 'role', 'style']) element.removeAttribute(name);
    if (element.tagName === 'text')
      element.setAttribute(
        'font-family',
        isMono ? 'Atkinson Hyperlegible Mono, monospace' : 'Atkinson Hyperlegible Next, sans-serif',
      );
  }
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  return { text: new XMLSerializer().serializeToString(copy), width, height };
}

/** Saves the board as SVG. */
export const saveBoardSvg = (svg: SVGSVGElement, name: string): void =>
  saveFile(name, standalone(svg).text, 'image/svg+xml');

/** Shows a drawing as an image, for as long as something is done with it. */
async function withImage<T>(text: string, use: (image: HTMLImageElement) => T | Promise<T>): Promise<T> {
  const address = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
  try {
    const image = document.createElement('img');
    image.src = address;
    await image.decode();
    return await use(image);
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** Saves the board as PNG, on the paper of the theme. */
export async function saveBoardPng(svg: SVGSVGElement, name: string): Promise<void> {
  const { text, width, height } = standalone(svg);
  const blob = await withImage(text, (image) => {
    const canvas = document.createElement('canvas');
    canvas.width = width * SHARP;
    canvas.height = height * SHARP;
    const g = canvas.getContext('2d');
    if (!g) throw new Error('this browser cannot paint pictures');
    g.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--paper');
    g.fillRect(0, 0, canvas.width, canvas.height);
    g.drawImage(image, 0, 0, canvas.width, canvas.height);
    return new Promise<Blob | null>((done) => {
      canvas.toBlob(done, 'image/png');
    });
  });
  if (!blob) throw new Error('the picture became too large');
  saveFile(name, blob, 'image/png');
}

/** Prints the board as large as it is, and the list of its wires. */
export async function printBoard(svg: SVGSVGElement, title: string, wiring: Wiring | null): Promise<void> {
  const { text, width } = standalone(svg);
  await withImage(text, (image) => {
    const page = document.createElement('div');
    page.className = 'printed';
    const heading = document.createElement('p');
    heading.textContent = title;
    image.alt = title;
    image.style.width = `${(width / PITCH) * MM_PER_PITCH}mm`;
    page.append(heading, image, wiring ? wireTable(wiring) : '');
    document.body.append(page);
    const printed = new Promise<void>((done) => {
      window.addEventListener('afterprint', () => done(), { once: true });
    });
    window.print();
    return printed.then(() => page.remove());
  });
}

function wireTable({ wires }: Wiring): HTMLTableElement {
  const table = document.createElement('table');
  for (const { stage, from, to, net, colour } of wires) {
    const row = table.insertRow();
    const where = stage === 0 ? 'supply' : `stage ${stage}`;
    for (const text of [where, from, to, net === from ? '' : net, colour]) {
      const cell = row.insertCell();
      cell.textContent = text;
      cell.style.paddingRight = '4mm';
    }
  }
  return table;
}
