import { coded } from '../../build/matches';
import type { Command } from '../command';
import type { Draft } from '../draft/draft';
import { type Kind, type Of, placeOf, theActivity, theField } from '../kind';
import { placed } from '../placed';
import { CommandRefused } from '../refused';

function checkField(draft: Draft, id: string): void {
  if (!draft.rest.codeFields.some((f) => f.id === id))
    throw new CommandRefused(`There is no code field “${id}” in the plan (any more).`);
}

/** @returns the codes that these activities had before */
function giveCodes({ activities, touched }: Draft, field: string, codes: readonly [string, string][]) {
  return [...new Map(codes)].map(([ref, code]): [string, string] => {
    const a = activities.get(ref);
    const { [field]: before = '', ...rest } = a.codes;
    activities.put({ ...a, codes: code === '' ? rest : { ...a.codes, [field]: code } });
    touched.add(ref);
    return [ref, before];
  });
}

const things = (count: number, one: string, many: string): string => (count === 1 ? one : `${count} ${many}`);

export const setCodeField: Kind<Of<'setCodeField'>> = {
  apply: (draft, { field, before }) => {
    const { list, was, behind } = placed(draft.rest.codeFields, field, before, 'code field');
    draft.set({ codeFields: list });
    if (!was) return { do: 'removeCodeField', id: field.id };
    return { do: 'setCodeField', field: was, ...(before !== undefined && { before: behind }) };
  },
  writes: ({ field, before }) => [
    theField(field.id, 'said'),
    ...(before === undefined ? [] : [theField(field.id, 'place')]),
  ],
  relies: ({ before }) => placeOf('field', before),
  words: ({ field }) => `Change the code book ${field.name}`,
};

export const removeCodeField: Kind<Of<'removeCodeField'>> = {
  apply: (draft, { id }) => {
    checkField(draft, id);
    const { codeFields, elementCodes } = draft.rest;
    const at = codeFields.findIndex((f) => f.id === id);
    const having = draft.activities
      .values()
      .flatMap((a): [string, string][] => (Object.hasOwn(a.codes, id) ? [[a.ref, a.codes[id]!]] : []));
    const elements = elementCodes.flatMap((c): [string, string][] =>
      c.field === id ? c.elements.map((ref): [string, string] => [ref, c.code]) : [],
    );
    giveCodes(
      draft,
      id,
      having.map(([ref]) => [ref, '']),
    );
    draft.set({ codeFields: codeFields.filter((f) => f.id !== id) });
    if (elements.length > 0) draft.set({ elementCodes: elementCodes.filter((c) => c.field !== id) });
    const back: Command[] = [
      { do: 'setCodeField', field: codeFields[at]!, before: codeFields[at + 1]?.id ?? null },
      { do: 'recode', field: id, codes: having },
      ...(elements.length > 0 ? [{ do: 'codeElements' as const, field: id, codes: elements }] : []),
    ];
    return { do: 'all', commands: back };
  },
  writes: ({ id }) => [theField(id)],
  relies: () => [],
  words: ({ id }) => `Remove the code field ${id}`,
};

export const recode: Kind<Of<'recode'>> = {
  apply: (draft, { field, codes }) => {
    checkField(draft, field);
    return { do: 'recode', field, codes: giveCodes(draft, field, codes) };
  },
  writes: ({ field, codes }) => codes.map(([ref]) => theActivity(ref, 'codes', field)),
  relies: ({ field, codes }) => [theField(field), ...codes.map(([ref]) => theActivity(ref))],
  words: ({ field, codes }) => `Code ${things(codes.length, 'one activity', 'activities')} by ${field}`,
};

export const codeElements: Kind<Of<'codeElements'>> = {
  apply: (draft, { field, codes }) => {
    checkField(draft, field);
    const { codes: elementCodes, before } = coded(draft.rest.elementCodes, field, codes);
    draft.set({ elementCodes });
    return { do: 'codeElements', field, codes: before };
  },
  writes: ({ field, codes }) => codes.map(([element]) => ['elementCode', element, field]),
  relies: ({ field }) => [theField(field)],
  words: ({ field, codes }) => `Code ${things(codes.length, 'one element', 'elements')} by ${field}`,
};
