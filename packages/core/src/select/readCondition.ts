import { lowered } from '../plan/text';
import type { Condition, Test } from './condition';
import { codeOfFieldId, type Fielded, fieldType, selectFields } from './fields';
import { operatorsFor } from './select';

/** A condition that was read, and how much of the text it took. */
export interface ReadCondition {
  condition: Condition;
  length: number;
}

/**
 * Reads a condition from the beginning of a text, as `conditionWords` says it: `phase is Build and name contains pile`.
 * Null where the text does not begin with one. Texts are read without regard to case; values with commas or the words
 * “and” and “or” stand in quotes.
 */
export function readCondition(plan: Fielded, text: string): ReadCondition | null {
  const reader = new Reader(plan, text);
  const condition = reader.condition();
  return condition && { condition, length: reader.at };
}

const longestFirst = <T>(list: T[], words: (item: T) => string): T[] =>
  [...list].sort((a, b) => words(b).length - words(a).length);

class Reader {
  at = 0;
  private readonly lower: string;
  private readonly fields;

  constructor(
    private readonly plan: Fielded,
    private readonly text: string,
  ) {
    this.lower = lowered(text);
    this.fields = longestFirst(selectFields(plan), (f) => f.name);
  }

  condition(): Condition | null {
    const first = this.part();
    if (!first) return null;
    const tests = [first];
    let match: Condition['match'] = 'all';
    for (;;) {
      const before = this.at;
      const joint = this.take([' and ', ' or ']);
      // One level is joined in one way; another joint belongs to whoever reads on.
      if (joint === null || (tests.length > 1 && (joint === ' and ') !== (match === 'all'))) {
        this.at = before;
        break;
      }
      const next = this.part();
      if (!next) {
        this.at = before;
        break;
      }
      match = joint === ' and ' ? 'all' : 'any';
      tests.push(next);
    }
    return tests.length === 1 && !('field' in first) ? first : { match, tests };
  }

  private part(): Test | Condition | null {
    const before = this.at;
    if (this.take(['(']) !== null) {
      const inner = this.condition();
      if (inner && this.take([')']) !== null) return inner;
      this.at = before;
      return null;
    }
    return this.test();
  }

  private test(): Test | null {
    const before = this.at;
    const field = this.fields.find((f) => this.lower.startsWith(`${lowered(f.name)} `, this.at));
    if (!field) return null;
    this.at += field.name.length + 1;
    const operators = longestFirst(operatorsFor(fieldType(field.id)), ([, words]) => words);
    const found = operators.find(([, words]) => this.takes(words));
    if (!found) {
      this.at = before;
      return null;
    }
    const [is] = found;
    if (is === 'empty' || is === 'filled') return { field: field.id, is, values: [] };
    const values: string[] = [];
    do {
      const value = this.value(field.id);
      if (value === null) break;
      values.push(value);
    } while (this.another());
    if (values.length > 0) return { field: field.id, is, values };
    this.at = before;
    return null;
  }

  /** Whether another value follows; a field behind “or” is another test. */
  private another(): boolean {
    if (!this.lower.startsWith(' or ', this.at)) return false;
    const rest = this.at + 4;
    if (this.lower[rest] === '(') return false;
    const isTest = this.fields.some((f) => {
      const name = `${lowered(f.name)} `;
      return (
        this.lower.startsWith(name, rest) &&
        operatorsFor(fieldType(f.id)).some(([, words]) => this.lower.startsWith(words, rest + name.length))
      );
    });
    if (isTest) return false;
    this.at = rest;
    return true;
  }

  private value(field: string): string | null {
    const code = codeOfFieldId(field);
    const book = this.plan.codeFields.find((f) => f.id === code)?.values ?? [];
    const said = this.quoted() ?? this.titled(book) ?? this.plain();
    if (said === null) return null;
    return book.find((v) => lowered(v.title) === lowered(said))?.code ?? said;
  }

  private quoted(): string | null {
    const m = /^ ?[“"]([^”"]*)[”"]/.exec(this.text.slice(this.at));
    if (!m) return null;
    this.at += m[0].length;
    return m[1]!;
  }

  /** The title of a value of the book, the longest that stands here. */
  private titled(book: readonly { title: string }[]): string | null {
    const from = this.lower[this.at] === ' ' ? this.at + 1 : this.at;
    const found = longestFirst([...book], (v) => v.title).find(
      (v) =>
        v.title !== '' && this.lower.startsWith(lowered(v.title), from) && isEnd(this.lower, from + v.title.length),
    );
    if (!found) return null;
    this.at = from + found.title.length;
    return found.title;
  }

  /** Anything up to what ends a value. */
  private plain(): string | null {
    const m = /^ ?((?:[^,.;()“”"]|\.(?=\S))+?)(?= and | or |[,;()]|\.(?:\s|$)|$)/i.exec(this.text.slice(this.at));
    if (!m || m[1]!.trim() === '') return null;
    this.at += m[0].length;
    return m[1]!.trim();
  }

  private takes(words: string): boolean {
    if (!this.lower.startsWith(words, this.at) || !isEnd(this.lower, this.at + words.length)) return false;
    this.at += words.length;
    return true;
  }

  private take(words: string[]): string | null {
    const found = words.find((w) => this.lower.startsWith(w, this.at));
    if (found !== undefined) this.at += found.length;
    return found ?? null;
  }
}

/** Whether a word ends at a place. */
const isEnd = (text: string, at: number): boolean => at >= text.length || !/[\p{L}\p{N}]/u.test(text[at]!);
