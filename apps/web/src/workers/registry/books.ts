import {
  type CalendarSpec,
  type CodeField,
  type Command,
  type PastedCodes,
  type Resource,
  readPastedCodes,
} from '@clembo/core';
import { type Book, type FillPreview, booksOf, codeTexts, fillCommand, previewFill } from '../answers/books';
import { calendarUse, putCalendar, withoutCalendar } from '../answers/calendars';
import {
  type NeedsShown,
  type Step,
  assigned,
  needsShown,
  putResource,
  shapedAssignment,
  withoutResource,
} from '../answers/resources';
import type { OpenPlan } from '../openPlan';

/** Code books, calendars and resources. */
export const bookAnswers = (open: OpenPlan) => ({
  books(): Book[] {
    return booksOf(open.held);
  },

  /** What a field would be filled with; `field` need not be kept yet. */
  previewFill(field: CodeField): FillPreview {
    return previewFill(open.held, field);
  },

  /** The command that keeps a field and fills it. */
  fillCommand(field: CodeField): Command {
    return fillCommand(open.held, field);
  },

  /** Values of a field of the plan that a condition may speak of, for completing what is typed. */
  texts(field: string): string[] {
    return codeTexts(open.held, field);
  },

  refsWithCode(field: string, code: string): string[] {
    return open.held.plan.activities.filter((a) => (a.codes[field] ?? '') === code).map((a) => a.ref);
  },

  pastedCodes(table: string[][], column: number | null): PastedCodes {
    return readPastedCodes(open.held.plan, table, column);
  },

  calendarUse(): Record<string, number> {
    return calendarUse(open.held);
  },

  putCalendar(next: CalendarSpec): Command {
    return putCalendar(open.held, next);
  },

  withoutCalendar(id: string): Command {
    return withoutCalendar(open.held, id);
  },

  putResource(id: string, part: Partial<Omit<Resource, 'id'>>): Command {
    return putResource(open.held, id, part);
  },

  withoutResource(id: string): Command {
    return withoutResource(open.held, id);
  },

  needs(step: Step): NeedsShown {
    return needsShown(open.held, step);
  },

  assigned(ref: string, id: string, hours: number): Command | null {
    return assigned(open.held, ref, id, hours);
  },

  shapedAssignment(ref: string, id: string, shape: string): Command | null {
    return shapedAssignment(open.held, ref, id, shape);
  },
});
