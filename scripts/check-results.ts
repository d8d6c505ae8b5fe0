import { relative } from 'node:path';
import { ts } from 'ts-morph';

/*
 * No caller may ignore a refusal: a statement that is nothing but a call whose `Result` is dropped is an error. Where
 * the person has been told already, `told(…)` says so in the code. Nor may a refusal itself stand in a sentence, where it
 * would read “[object Object]”. Run by `./test`; prints a line for each place.
 */

const config = ts.readConfigFile('tsconfig.json', ts.sys.readFile);
const { fileNames, options } = ts.parseJsonConfigFileContent(config.config, ts.sys, process.cwd());
const program = ts.createProgram(fileNames, options);
const checker = program.getTypeChecker();

/** Whether a type, or the value of a promise, can be a refusal. */
function isResult(type: ts.Type): boolean {
  const given = checker.getAwaitedType(type) ?? type;
  const members = given.isUnion() ? given.types : [given];
  return members.some(
    (member) => member.getProperty('ok') !== undefined && member.getProperty('problem') !== undefined,
  );
}

/** Whether a value is a refusal or an error, rather than its message. */
const isProblem = (type: ts.Type): boolean =>
  type.isUnion() ? type.types.some(isProblem) : type.getProperty('message') !== undefined;

const places: string[] = [];

function tell(node: ts.Node, file: ts.SourceFile, what: string): void {
  const { line } = file.getLineAndCharacterOfPosition(node.getStart(file));
  const text = node.getText(file).split('\n')[0];
  places.push(`${relative(process.cwd(), file.fileName)}:${line + 1} ${text}\n  ${what}`);
}

function visit(node: ts.Node, file: ts.SourceFile): void {
  const dropped = ts.isExpressionStatement(node)
    ? node.expression
    : ts.isVoidExpression(node)
      ? node.expression
      : undefined;
  const isKept = dropped && ts.isBinaryExpression(dropped);
  if (dropped && !isKept && !ts.isVoidExpression(dropped) && isResult(checker.getTypeAtLocation(dropped))) {
    tell(node, file, 'drops a Result: handle its refusal, or wrap it in told(…)');
  }
  if (ts.isTemplateExpression(node))
    for (const { expression } of node.templateSpans)
      if (isProblem(checker.getTypeAtLocation(expression)))
        tell(expression, file, 'stands in a sentence itself: write what it says, its `.message`');
  ts.forEachChild(node, (child) => visit(child, file));
}

for (const file of program.getSourceFiles()) {
  const name = relative(process.cwd(), file.fileName);
  if (!/^(src|app|cli)\//.test(name) || /\.test\.tsx?$/.test(name)) continue;
  visit(file, file);
}
for (const place of places) console.log(place);
if (places.length > 0) process.exitCode = 1;
else console.log('no refusal is dropped, and none stands in a sentence itself');
