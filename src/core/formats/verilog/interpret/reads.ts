import type { Expression, Statement } from '../syntax';
import type { Scope, Variable } from './place';

/** The variables whose change makes `always @*` run again: all that an expression or statement reads, functions included. */
export function readsIn(
  of: Expression | Statement,
  scope: Scope,
  found = new Set<Variable>(),
  open = new Set<string>(),
): Set<Variable> {
  const into = (inner: Expression | Statement | null | undefined) =>
    inner && readsIn(inner, scope, found, open);
  const named = (name: string) => {
    const variable = scope.constant(name) ? undefined : scope.find(name);
    if (variable) found.add(variable);
  };
  /** Of a target only the places are read. */
  const target = (e: Expression): void => {
    if (e.is === 'concat') for (const item of e.items) target(item);
    else if (e.is === 'select') for (const index of [...e.path, e.part?.first]) into(index);
  };
  const routine = (name: string) => {
    const known = scope.routine(name);
    if (!known || open.has(name)) return;
    const inner = known.home.inner(name);
    // What the routine has itself hides what is around it.
    const own = new Set([
      name,
      ...[...known.routine.arguments, ...known.routine.declarations].map((d) => d.name),
    ]);
    const outside = readsIn(known.routine.body, inner, new Set(), new Set(open).add(name));
    for (const variable of outside) if (!own.has(variable.name)) found.add(variable);
  };
  switch (of.is) {
    case 'name':
      named(of.name);
      break;
    case 'select':
      named(of.name);
      for (const index of [...of.path, of.part?.first, of.part?.second]) into(index);
      break;
    case 'concat':
      of.items.forEach(into);
      break;
    case 'repeat':
      if ('item' in of) {
        into(of.item);
      } else {
        into(of.count);
        into(of.body);
      }
      break;
    case 'unary':
      into(of.of);
      break;
    case 'binary':
      into(of.left);
      into(of.right);
      break;
    case 'choose':
      into(of.condition);
      into(of.yes);
      into(of.no);
      break;
    case 'call':
      of.arguments.forEach(into);
      routine(of.name);
      break;
    case 'block':
      of.statements.forEach(into);
      break;
    case 'if':
      into(of.condition);
      into(of.yes);
      into(of.no);
      break;
    case 'case':
      into(of.chosen);
      for (const { labels, body } of of.items) {
        labels.forEach(into);
        into(body);
      }
      into(of.otherwise);
      break;
    case 'assign':
      target(of.target);
      into(of.value);
      break;
    case 'for':
      into(of.first);
      into(of.condition);
      into(of.step);
      into(of.body);
      break;
    case 'while':
    case 'wait':
      into(of.condition);
      into(of.body);
      break;
    case 'forever':
    case 'delay':
    case 'event':
      into(of.body);
      break;
  }
  return found;
}
