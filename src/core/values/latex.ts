import { runsOf, type TextRun } from './markup';

/** Characters that mean something to LaTeX, and signs that its usual fonts have only in formulas. */
const WRITTEN: Readonly<Record<string, string>> = {
  '\\': '\\textbackslash{}',
  '{': '\\{',
  '}': '\\}',
  $: '\\$',
  '&': '\\&',
  '#': '\\#',
  '%': '\\%',
  _: '\\_',
  '^': '\\textasciicircum{}',
  '~': '\\textasciitilde{}',
  '<': '\\textless{}',
  '>': '\\textgreater{}',
  '|': '\\textbar{}',
  '"': "''",
  "'": "$'$",
  '`': '\\textasciigrave{}',
  '-': '{-}',
  '–': '--',
  '—': '---',
  '…': '\\dots{}',
  '“': '``',
  '”': "''",
  '‘': '`',
  '’': "'",
  '\u00a0': '~',
  '′': "$'$",
  '″': "$''$",
  '⋅': '$\\cdot$',
  '⋯': '$\\cdots$',
  '›': '$\\rangle$',
  '▸': '$\\triangleright$',
  '◂': '$\\triangleleft$',
  '‐': '{-}',
  '‑': '{-}',
  '·': '$\\cdot$',
  '×': '$\\times$',
  '÷': '$\\div$',
  '±': '$\\pm$',
  '−': '$-$',
  '¬': '$\\neg$',
  '∧': '$\\wedge$',
  '∨': '$\\vee$',
  '⊕': '$\\oplus$',
  '⊙': '$\\odot$',
  '≥': '$\\geq$',
  '≤': '$\\leq$',
  '≠': '$\\neq$',
  '≡': '$\\equiv$',
  '→': '$\\rightarrow$',
  '←': '$\\leftarrow$',
  '↑': '$\\uparrow$',
  '↓': '$\\downarrow$',
  '↔': '$\\leftrightarrow$',
  '⇒': '$\\Rightarrow$',
  '∞': '$\\infty$',
  Σ: '$\\Sigma$',
  Π: '$\\Pi$',
  Δ: '$\\Delta$',
  Ω: '$\\Omega$',
  μ: '$\\mu$',
  µ: '$\\mu$',
  π: '$\\pi$',
  '°': '$^\\circ$',
  '✓': '$\\surd$',
  '✗': '$\\times$',
  '▶': '$\\triangleright$',
  '◀': '$\\triangleleft$',
  '▲': '$\\bigtriangleup$',
  '▼': '$\\bigtriangledown$',
  '●': '$\\bullet$',
  '○': '$\\circ$',
  '☐': '{\\setlength{\\fboxsep}{0pt}\\framebox{\\rule{0pt}{1.3ex}\\rule{1.3ex}{0pt}}}',
  '□': '{\\setlength{\\fboxsep}{0pt}\\framebox{\\rule{0pt}{1.3ex}\\rule{1.3ex}{0pt}}}',
};

const CONTROL = /\p{C}/u;

/** A text for LaTeX. Letters stay as they are; controls, which no file has, are left out. */
export function latexText(text: string): string {
  return [...text].map((c) => WRITTEN[c] ?? (CONTROL.test(c) ? '' : c)).join('');
}

/** Runs of a text for LaTeX: subscripts below the line, bars over what they are about. */
export function latexRuns(runs: readonly TextRun[]): string {
  return runs
    .map(({ text, low, barred }) => {
      const said = latexText(text);
      const within = barred ? `$\\overline{\\mbox{${said}}}$` : said;
      return low ? `\\textsubscript{${within}}` : within;
    })
    .join('');
}

/** A name with its marks, within a formula: a letter by itself, more of them as one word. */
export function latexName(name: string): string {
  return runsOf(name)
    .map(({ text, low, barred }, i) => {
      const said = /^[\p{L}\p{N}]$/u.test(text) ? text : `\\mathit{${latexText(text)}}`;
      const within = barred ? `\\overline{${said}}` : said;
      return low && i > 0 ? `_{${within}}` : within;
    })
    .join('');
}
