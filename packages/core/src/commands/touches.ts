import type { Command } from './command';

/**
 * What a command is about, as keys: `A12.start` a field, `A12` the whole activity, `order A12` its place, `link A>B`,
 * `book ID`, `plan.name`.
 */
export function touchesOf(command: Command, into: Set<string> = new Set()): Set<string> {
  switch (command.do) {
    case 'setPlan':
      for (const key of Object.keys(command.settings)) into.add(`plan.${key}`);
      break;
    case 'changeActivity':
      for (const key of Object.keys(command.part)) into.add(`${command.ref}.${key}`);
      break;
    case 'addActivity':
      into.add(command.activity.ref);
      break;
    case 'removeActivity':
      into.add(command.ref);
      break;
    case 'moveActivity':
      into.add(`order ${command.ref}`);
      break;
    case 'addLink':
    case 'removeLink':
      into.add(`link ${command.link.from}>${command.link.to}`);
      break;
    case 'setCodeField':
      into.add(`book ${command.field.id}`);
      break;
    case 'removeCodeField':
      into.add(`book ${command.id}`);
      break;
    case 'setPicture':
      into.add(`picture ${command.picture.id}`);
      break;
    case 'removePicture':
      into.add(`picture ${command.id}`);
      break;
    case 'matchElements':
    case 'unmatchElements':
      for (const e of command.match.elements) into.add(`element ${e}>${command.match.activity}`);
      break;
    case 'codeElements':
      for (const [e] of command.codes) into.add(`element ${e} ${command.field}`);
      break;
    case 'recode':
      for (const [ref] of command.codes) into.add(`${ref}.codes`);
      break;
    case 'all':
      for (const c of command.commands) touchesOf(c, into);
      break;
  }
  return into;
}

/** Whether two commands are about the same thing, so that the one that comes later would overrule the other. */
export function collide(a: Command, b: Command): boolean {
  const [x, y] = [touchesOf(a), touchesOf(b)];
  const [few, many] = x.size <= y.size ? [x, y] : [y, x];
  for (const key of few) if (many.has(key)) return true;
  // An activity as a whole and any part of it.
  const whole = (keys: Set<string>, others: Set<string>): boolean => {
    for (const key of others) {
      const at = key.lastIndexOf('.');
      if (at > 0 && keys.has(key.slice(0, at))) return true;
      if (key.startsWith('order ') && keys.has(key.slice(6))) return true;
      if (key.startsWith('link ')) {
        const [from, to] = key.slice(5).split('>') as [string, string];
        if (keys.has(from) || keys.has(to)) return true;
      }
    }
    return false;
  };
  return whole(x, y) || whole(y, x);
}
