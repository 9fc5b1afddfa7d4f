import { type Command, type Condition, type MatchRule, type SelectField, conditionWords } from '@clembo/core';
import {
  type CodedElements,
  type ElementsFacts,
  type MatchingShown,
  type ModelBook,
  type ModelOut,
  type StandingShown as ModelStandingShown,
  type RuleShown,
  type StandingAsked,
  assignedCommand,
  codedElements,
  elementCells,
  elementTexts,
  elementsFacts,
  elementsOfWork,
  elementsWhere,
  matchingShown,
  modelFile,
  standingShown as modelStandingShown,
  rulesCommand,
  rulesShown,
} from '../answers/models';
import type { OpenPlan } from '../openPlan';

/** Models of the plan, and the work that builds them. */
export const modelAnswers = (open: OpenPlan) => ({
  /** The models of the plan; `again` where they may have changed. */
  modelBook(again = false): Promise<ModelBook> {
    return open.modelBook(again);
  },

  async elementFieldList(): Promise<SelectField[]> {
    return (await open.modelBook()).fields;
  },

  /** The model as it stands on a day. */
  async modelStanding(asked: StandingAsked, compare: string | null): Promise<ModelStandingShown> {
    return modelStandingShown(open.held, await open.modelBook(), await open.keptEdition(compare), asked);
  },

  async matching(all: { works: boolean; kinds: boolean }): Promise<MatchingShown> {
    return matchingShown(open.held, await open.modelBook(), all);
  },

  async ruleList(rules: MatchRule[]): Promise<RuleShown[]> {
    const book = await open.modelBook();
    const { codeFields } = open.held.plan;
    return rulesShown(open.held, book, rules, (c) =>
      conditionWords({ codeFields, effortDay: null, fields: book.fields }, c),
    );
  },

  async rulesCommand(rules: MatchRule[]): Promise<Command | null> {
    return rulesCommand(open.held, await open.modelBook(), rules);
  },

  /** What a model itself says of who builds what. */
  async assignedCommand(model: string): Promise<Command | null> {
    const found = (await open.modelBook()).models.find((m) => m.id === model);
    return found ? assignedCommand(open.held, found.assigned) : null;
  },

  async elementsFacts(chosen: number[]): Promise<ElementsFacts> {
    return elementsFacts(open.held, await open.modelBook(), chosen);
  },

  async elementsWhere(where: Condition): Promise<number[]> {
    return elementsWhere(open.held, await open.modelBook(), where);
  },

  async elementCells(chosen: number[], columns: string[]): Promise<string[][]> {
    return elementCells(open.held, await open.modelBook(), chosen, columns);
  },

  async elementTexts(field: string): Promise<string[]> {
    return elementTexts(open.held, await open.modelBook(), field);
  },

  /** Codes of elements from a pasted table, with values that the book lacks; and what could not be used. */
  async pastedElementCodes(field: string, key: string, table: string[][]): Promise<CodedElements> {
    return codedElements(open.held, await open.modelBook(), field, { key, table });
  },

  /** Codes of elements from what they say themselves. */
  async codesFromField(field: string, from: string, characters: number | null): Promise<CodedElements> {
    return codedElements(open.held, await open.modelBook(), field, { from, characters });
  },

  /** A code for elements that are chosen. */
  async codedElements(field: string, code: string, chosen: number[]): Promise<CodedElements> {
    return codedElements(open.held, await open.modelBook(), field, { code, chosen });
  },

  /** A file of what is matched; `written` is when it is said to be written. */
  async modelFile(kind: ModelOut, asked: StandingAsked, compare: string | null, written: number) {
    const { looks } = modelStandingShown(open.held, await open.modelBook(), await open.keptEdition(compare), asked);
    return modelFile(open.held, await open.modelBook(), kind, { day: asked.day, written, looks });
  },

  async elementsOfWork(ref: string): Promise<number[]> {
    return elementsOfWork(open.held, await open.modelBook(), ref);
  },
});
