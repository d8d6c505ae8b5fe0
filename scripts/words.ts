import { relative } from 'node:path';
import { ts } from 'ts-morph';

/*
 * Prints every text that a person can see or hear: labels, messages, tooltips, help, refusals, spoken names.
 * To be read in one go; `npm run words -- src/ui/faces` for one folder. `‹…›` stands for a value that is
 * filled in.
 */

const HIDDEN_ATTRIBUTES =
  /^(className|style|type|role|d|viewBox|fill|stroke|transform|href|key|id|aria-(haspopup|controls|live|hidden|orientation|current)|points|xmlns|accept|name|rel|target|method|side|align|popup|value|preserveAspectRatio|textAnchor|dominantBaseline|autoComplete|inputMode|enterKeyHint)$/;
const ROOTS = process.argv.slice(2);
const IN = ROOTS.length > 0 ? ROOTS : ['app', 'src', 'cli'];

const config = ts.readConfigFile('tsconfig.json', ts.sys.readFile);
const { fileNames } = ts.parseJsonConfigFileContent(config.config, ts.sys, process.cwd());

/** The text of a literal, with `‹…›` for each value that is filled in. */
function textOf(node: ts.Node): string | null {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isTemplateExpression(node))
    return node.head.text + node.templateSpans.map((span) => `‹…›${span.literal.text}`).join('');
  if (ts.isJsxText(node)) return node.text;
  return null;
}

/** Whether a text reads as words rather than as a code, a path or a list of classes. */
function isProse(text: string): boolean {
  const plain = text.replaceAll('‹…›', ' ').trim();
  if (!/\p{L}{2}/u.test(plain)) return false;
  if (/[{};]|=>|--|^[@./#]|^\w+:\/\//.test(plain)) return false;
  return /\s/.test(plain) || /^\p{Lu}\p{Ll}/u.test(plain) || /[….!?]$/.test(plain);
}

function isHidden(node: ts.Node): boolean {
  const { parent } = node;
  if (ts.isImportDeclaration(parent) || ts.isExportDeclaration(parent)) return true;
  for (let at: ts.Node | undefined = node; at && !ts.isStatement(at); at = at.parent) {
    if (ts.isJsxAttribute(at)) return HIDDEN_ATTRIBUTES.test(at.name.getText());
    if (ts.isLiteralTypeNode(at) || ts.isThrowStatement(at)) return true;
  }
  return false;
}

const seen = new Set<string>();
for (const name of fileNames.map((file) => relative(process.cwd(), file)).sort()) {
  if (!IN.some((root) => name.startsWith(root)) || /\.test\.tsx?$|\/testing\//.test(name)) continue;
  const file = ts.createSourceFile(name, ts.sys.readFile(name)!, ts.ScriptTarget.Latest, true);
  const lines: string[] = [];
  const visit = (node: ts.Node): void => {
    const text = textOf(node)?.replace(/\s+/g, ' ').trim();
    if (text && (ts.isJsxText(node) || isProse(text)) && /\p{L}/u.test(text) && !isHidden(node)) {
      const { line } = file.getLineAndCharacterOfPosition(node.getStart(file));
      if (!seen.has(text)) lines.push(`  ${String(line + 1).padStart(4)}  ${text}`);
      seen.add(text);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  if (lines.length > 0) console.log([name, ...lines].join('\n'));
}
