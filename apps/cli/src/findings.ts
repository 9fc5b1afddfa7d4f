import { type Finding, wordsFor } from '@clembo/core';
import { type Problem, problemPlace, problemWords } from '@clembo/formats';
import type { Loaded } from './load';

/** A finding as JSON has it: what, which rows, and in words. */
export interface FindingRow {
  code: string;
  severity: string;
  refs: string[];
  message: string;
  place?: string;
  row?: number;
  facts?: Finding['facts'];
}

/** What the intake could not read, and what core found, as one list. */
export const findingRows = ({ problems, rowOf }: Loaded, findings: Finding[]): FindingRow[] => {
  const refAt = new Map([...rowOf].map(([ref, row]) => [row, ref]));
  const ofProblem = (p: Problem): FindingRow => ({
    code: p.code,
    severity: 'warning',
    refs: p.refs ?? (refAt.has(p.row) ? [refAt.get(p.row)!] : []),
    message: problemWords(p),
    place: problemPlace(p),
    row: p.row,
  });
  return [...problems.map(ofProblem), ...findings.map((f) => ({ ...f, message: wordsFor(f) }))];
};

export const json = (value: unknown): string => `${JSON.stringify(value, null, 1)}\n`;

/** Findings for people: one a line, with its place where it has one. */
export const findingLines = (rows: FindingRow[]): string =>
  rows.map((r) => `${r.severity.padEnd(8)}${r.place ? `${r.place}: ` : ''}${r.message}\n`).join('');
