import type { ProcessShapes, Scene } from '@clembo/scene';
import { PageRefused } from '../refused';
import { escapeXml } from '../xml';

type Step = ProcessShapes['steps'][number];
type Point = [x: number, y: number];
interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Elements of BPMN that are events, drawn as circles. */
const isEvent = (element: string): boolean => element.endsWith('Event');

/**
 * A page of handoffs as a process of BPMN 2.0 (ISO/IEC 19510), with its diagram: lanes, tasks, events, gateways, named
 * flows. A step of several lanes stands in the first of them; whose it is too, its phase and its reference are written
 * as its documentation.
 *
 * @throws PageRefused for a page that shows no process
 */
export function writeBpmn(scene: Scene): string {
  const { process } = scene;
  if (!process) throw new PageRefused('Only a page of handoffs can be written as BPMN.');
  const { lanes, steps, arrows } = process;
  const into = new Set(arrows.map((a) => a.to));
  const out = new Set(arrows.map((a) => a.from));
  const elements = steps.map((s, k) => elementOf(s, into.has(k), out.has(k)));
  const boxes = steps.map((s, k) => boxOf(s, elements[k]!));
  const title = escapeXml(scene.title);
  const pool = lanes.length > 0;
  const flow = (k: number) => `flow_${k + 1}`;
  const step = (k: number) => `step_${k + 1}`;
  const laneSet = pool
    ? [
        '    <laneSet id="lanes">',
        ...lanes.flatMap((lane, l) => [
          `      <lane id="lane_${l + 1}" name="${escapeXml(lane.name)}">`,
          ...steps.flatMap((s, k) => (s.lane === l ? [`        <flowNodeRef>${step(k)}</flowNodeRef>`] : [])),
          '      </lane>',
        ]),
        '    </laneSet>',
      ]
    : [];
  const nodes = steps.flatMap((s, k) => [
    `    <${elements[k]} id="${step(k)}" name="${escapeXml(s.name)}">`,
    `      <documentation>${escapeXml(documentationOf(s))}</documentation>`,
    ...arrows.flatMap((a, e) => (a.to === k ? [`      <incoming>${flow(e)}</incoming>`] : [])),
    ...arrows.flatMap((a, e) => (a.from === k ? [`      <outgoing>${flow(e)}</outgoing>`] : [])),
    ...(elements[k] === 'intermediateCatchEvent' ? [`      <timerEventDefinition id="${step(k)}_timer"/>`] : []),
    `    </${elements[k]}>`,
  ]);
  const flows = arrows.map(
    (a, e) =>
      `    <sequenceFlow id="${flow(e)}" sourceRef="${step(a.from)}" targetRef="${step(a.to)}"${
        a.words === '' ? '' : ` name="${escapeXml(a.words)}"`
      }/>`,
  );
  const shape = (id: string, box: Box, more = '') =>
    `      <bpmndi:BPMNShape id="${id}_shape" bpmnElement="${id}"${more}><dc:Bounds x="${box.x}" y="${box.y}" width="${box.width}" height="${box.height}"/></bpmndi:BPMNShape>`;
  const [head] = lanes;
  const foot = lanes.at(-1);
  const shapes = [
    ...(head && foot
      ? [
          shape(
            'pool',
            { x: head.left, y: head.top, width: head.right - head.left, height: tenth(foot.bottom - head.top) },
            ' isHorizontal="true"',
          ),
          // A diagram leaves a strip at the left of the pool for its name.
          ...lanes.map((lane, l) =>
            shape(
              `lane_${l + 1}`,
              {
                x: lane.left + POOL_NAME,
                y: lane.top,
                width: tenth(lane.right - lane.left - POOL_NAME),
                height: tenth((lanes[l + 1]?.top ?? lane.bottom) - lane.top),
              },
              ' isHorizontal="true"',
            ),
          ),
        ]
      : []),
    ...boxes.map((box, k) => shape(step(k), box)),
    ...arrows.map((a, e) => {
      const points = docked(a.points, boxes[a.from]!, boxes[a.to]!);
      const way = points.map(([x, y]) => `<di:waypoint x="${x}" y="${y}"/>`).join('');
      return `      <bpmndi:BPMNEdge id="${flow(e)}_edge" bpmnElement="${flow(e)}">${way}</bpmndi:BPMNEdge>`;
    }),
  ];
  return `${[
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL"',
    '    xmlns:bpmndi="http://www.omg.org/spec/BPMN/20100524/DI"',
    '    xmlns:dc="http://www.omg.org/spec/DD/20100524/DC" xmlns:di="http://www.omg.org/spec/DD/20100524/DI"',
    '    id="definitions" targetNamespace="urn:clembo:process" exporter="Clembo">',
    ...(pool
      ? [
          '  <collaboration id="page">',
          `    <participant id="pool" name="${title}" processRef="process"/>`,
          '  </collaboration>',
        ]
      : []),
    `  <process id="process" name="${title}" isExecutable="false">`,
    ...laneSet,
    ...nodes,
    ...flows,
    '  </process>',
    '  <bpmndi:BPMNDiagram id="diagram">',
    `    <bpmndi:BPMNPlane id="plane" bpmnElement="${pool ? 'page' : 'process'}">`,
    ...shapes,
    '    </bpmndi:BPMNPlane>',
    '  </bpmndi:BPMNDiagram>',
    '</definitions>',
  ].join('\n')}\n`;
}

const POOL_NAME = 20;
const tenth = (n: number): number => Math.round(n * 100) / 100;

/** An end that something follows, or a start that something leads to, is an event on the way. */
function elementOf({ kind }: Step, into: boolean, out: boolean): string {
  switch (kind) {
    case 'start':
      return into ? 'intermediateThrowEvent' : 'startEvent';
    case 'end':
      return out ? 'intermediateThrowEvent' : 'endEvent';
    case 'decision':
      return 'exclusiveGateway';
    case 'waiting':
      return 'intermediateCatchEvent';
    default:
      return 'task';
  }
}

const documentationOf = (s: Step): string =>
  [
    `Reference: ${s.ref}`,
    `Hands: ${s.with.join(', ')}`,
    s.phase === '' ? '' : `Phase: ${s.phase}`,
    s.kind === 'document' ? 'Document' : '',
  ]
    .filter(Boolean)
    .join('. ');

/** Where a step is drawn: an event is as wide as it is high. */
function boxOf(s: Step, element: string): Box {
  if (!isEvent(element)) return { x: s.left, y: s.top, width: s.width, height: s.height };
  const side = Math.min(s.width, s.height);
  return { x: tenth(s.left + (s.width - side) / 2), y: s.top, width: side, height: side };
}

/** The points of a flow, with its ends at the edges of what it joins. */
function docked(points: readonly Point[], from: Box, to: Box): Point[] {
  const list = points.map(([x, y]): Point => [x, y]);
  const dock = (at: Point, beside: Point, box: Box): Point => {
    // A line that leaves to the side ends at that side; one that leaves up or down, at that one.
    if (Math.abs(at[1] - beside[1]) < 0.01) return [tenth(beside[0] > at[0] ? box.x + box.width : box.x), at[1]];
    return [at[0], tenth(beside[1] > at[1] ? box.y + box.height : box.y)];
  };
  list[0] = dock(points[0]!, points[1]!, from);
  list[list.length - 1] = dock(points.at(-1)!, points.at(-2)!, to);
  return list;
}
