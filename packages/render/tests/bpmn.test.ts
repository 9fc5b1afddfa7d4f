import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { BpmnModdle } from 'bpmn-moddle';
import { FIVE_DAY, makePlan, schedulePlan } from '@clembo/core';
import { composeExhibit, defaultBrief, type HandoffsBrief, Step, StepArrow } from '@clembo/scene';
import { validateXML } from 'xmllint-wasm';
import { compose, measure, plainAmounts, randomPlan } from '../../scene/tests/fixtures';
import { PageRefused, writeBpmn } from '../src/index';

const require = createRequire(import.meta.url);
/** The schema of BPMN 2.0 as it is published (OMG 2010), in its parts. */
const schema = ['BPMN20', 'BPMNDI', 'DC', 'DI', 'Semantic'].map((name) => ({
  fileName: `${name}.xsd`,
  contents: readFileSync(require.resolve(`bpmn-moddle/resources/bpmn/xsd/${name}.xsd`), 'utf8'),
}));

const plan = makePlan({ name: 'Loan', start: 0, calendars: [FIVE_DAY], calendar: FIVE_DAY.id });
const steps = [
  { id: 'a', name: 'Request & "terms"', kind: 'start', by: ['Registrar'] },
  { id: 'b', name: 'Check it', by: ['Conservator', 'Registrar'] },
  { id: 'c', name: 'Fit?', kind: 'decision', by: ['Conservator'] },
  { id: 'd', name: 'Report', kind: 'document', by: ['Conservator'] },
  { id: 'e', name: 'Wait', kind: 'waiting', by: ['Carrier'] },
  { id: 'f', name: 'Done', kind: 'end', by: ['Carrier'] },
].map((s) => Step.parse(s));
const arrows = [
  ['a', 'b'],
  ['b', 'c'],
  ['c', 'd', 'yes'],
  ['c', 'b', 'no'],
  ['d', 'e'],
  ['e', 'f'],
].map(([from, to, words]) => StepArrow.parse({ from, to, ...(words ? { words } : {}) }));
const page = (part: Partial<HandoffsBrief> = {}) =>
  composeExhibit({
    plan,
    schedule: schedulePlan(plan),
    brief: { ...defaultBrief('handoffs'), of: 'typed', steps, arrows, ...part },
    measure,
    amounts: plainAmounts,
    edition: '',
    promised: null,
    editions: [],
  });

test.each(['lanes', 'chart'] as const)('a page of the form %s is valid by the published schema', async (form) => {
  const xml = writeBpmn(page({ form }));
  const { valid, errors } = await validateXML({
    xml: [{ fileName: 'page.bpmn', contents: xml }],
    schema: [schema[0]!],
    preload: schema.slice(1),
  });
  expect(errors.map((e) => e.message)).toEqual([]);
  expect(valid).toBe(true);
});

interface Element {
  $type: string;
  id: string;
  name?: string;
  flowNodeRef?: Element[];
  sourceRef?: Element;
  targetRef?: Element;
}

test('another reader finds the steps, their lanes, the named ways, and all of it in the diagram', async () => {
  const { rootElement, warnings } = await new BpmnModdle().fromXML(writeBpmn(page()));
  expect(warnings).toEqual([]);
  const root = rootElement as unknown as {
    rootElements: { $type: string; flowElements?: Element[]; laneSets?: { lanes: Element[] }[] }[];
    diagrams: { plane: { planeElement: { bpmnElement: Element; bounds?: object; waypoint?: object[] }[] } }[];
  };
  const process = root.rootElements.find((e) => e.$type === 'bpmn:Process')!;
  const nodes = process.flowElements!.filter((e) => e.$type !== 'bpmn:SequenceFlow');
  expect(nodes.map((n) => [n.$type.slice(5), n.name])).toEqual([
    ['StartEvent', 'Request & "terms"'],
    ['Task', 'Check it'],
    ['ExclusiveGateway', 'Fit?'],
    ['Task', 'Report'],
    ['IntermediateCatchEvent', 'Wait'],
    ['EndEvent', 'Done'],
  ]);
  const flows = process.flowElements!.filter((e) => e.$type === 'bpmn:SequenceFlow');
  expect(flows.map((f) => [f.sourceRef!.name, f.targetRef!.name, f.name ?? ''])).toEqual(
    arrows.map((a) => [steps.find((s) => s.id === a.from)!.name, steps.find((s) => s.id === a.to)!.name, a.words]),
  );
  const lanes = process.laneSets![0]!.lanes;
  expect(lanes.flatMap((l) => (l.flowNodeRef ?? []).map((n) => n.id)).sort()).toEqual(nodes.map((n) => n.id).sort());
  const drawn = root.diagrams[0]!.plane.planeElement;
  const known = new Set(drawn.map((d) => d.bpmnElement.id));
  for (const e of [...nodes, ...flows, ...lanes]) expect(known.has(e.id)).toBe(true);
});

test('a page that shows no process is refused in words, and the same page gives the same bytes', () => {
  expect(() => writeBpmn(compose(randomPlan(5, 30)))).toThrow(PageRefused);
  expect(writeBpmn(page())).toBe(writeBpmn(page()));
});
