import { firstDayOf, isoDate, isMilestone, lastDayOf, NONE, type Plan, schedulePlan } from '@clembo/core';

/** A value of a node or an edge: its key, the type of GraphML, and what it is. */
type Value = [key: string, type: 'string' | 'double' | 'boolean', value: string | number | boolean | null];

interface Graph {
  nodes: { id: string; values: Value[] }[];
  edges: { from: string; to: string; values: Value[] }[];
}

/** Activities and links of a plan as a graph; groups are left out, their links stay with what they name. */
function graphOf(plan: Plan): Graph {
  const s = schedulePlan(plan);
  const span = (i: number) => ({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 });
  const day = (i: number, of: typeof firstDayOf) => (s.start[i] === NONE ? null : isoDate(of(span(i))));
  const days = (minutes: number, calendar: string | null) =>
    minutes / (plan.calendars.find((c) => c.id === (calendar ?? plan.calendar))?.minutesPerDay ?? 480);
  const linked = new Set(plan.links.flatMap((l) => [l.from, l.to]));
  return {
    nodes: plan.activities.flatMap((a, i) =>
      s.outline.isSummary[i] && !linked.has(a.ref)
        ? []
        : [
            {
              id: a.ref,
              values: [
                ['name', 'string', a.name],
                ['milestone', 'boolean', isMilestone(a.kind)],
                ['days', 'double', a.duration === null ? null : days(a.duration, a.calendar)],
                ['start', 'string', day(i, firstDayOf)],
                ['finish', 'string', day(i, lastDayOf)],
                ['float', 'double', s.totalFloat[i] === NONE ? null : days(s.totalFloat[i]!, a.calendar)],
                ['critical', 'boolean', s.critical[i] === 1],
                ...plan.codeFields.map((f): Value => [`code ${f.name}`, 'string', a.codes[f.id] ?? null]),
              ],
            },
          ],
    ),
    edges: plan.links.map(({ from, to, type, lag }) => ({
      from,
      to,
      values: [
        ['type', 'string', type],
        ['lag', 'double', days(lag, null)],
      ],
    })),
  };
}

const xml = (text: string): string =>
  text
    .replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)
    // biome-ignore lint: control characters are what XML does not allow
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');

/** The network of a plan as GraphML (graphml.graphdrawing.org): activities as nodes, links as directed edges. */
export function writePlanGraphml(plan: Plan): string {
  const { nodes, edges } = graphOf(plan);
  const keys = (of: 'node' | 'edge', values: Value[][]) => [
    ...new Map(values.flat().map(([key, type]) => [key, { of, key, type, id: `${of[0]}_${key}` }])).values(),
  ];
  const all = [
    ...keys(
      'node',
      nodes.map((n) => n.values),
    ),
    ...keys(
      'edge',
      edges.map((e) => e.values),
    ),
  ];
  const idOf = new Map(all.map((k, n) => [`${k.of} ${k.key}`, `d${n}`]));
  const data = (of: 'node' | 'edge', values: Value[]) =>
    values
      .filter(([, , value]) => value !== null && value !== '')
      .map(([key, , value]) => `<data key="${idOf.get(`${of} ${key}`)}">${xml(String(value))}</data>`)
      .join('');
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xsi:schemaLocation="http://graphml.graphdrawing.org/xmlns http://graphml.graphdrawing.org/xmlns/1.0/graphml.xsd">',
    ...all.map(
      (k) =>
        `<key id="${idOf.get(`${k.of} ${k.key}`)}" for="${k.of}" attr.name="${xml(k.key)}" attr.type="${k.type}"/>`,
    ),
    '<graph edgedefault="directed">',
    ...nodes.map((n) => `<node id="${xml(n.id)}">${data('node', n.values)}</node>`),
    ...edges.map((e) => `<edge source="${xml(e.from)}" target="${xml(e.to)}">${data('edge', e.values)}</edge>`),
    '</graph>',
    '</graphml>',
    '',
  ].join('\n');
}

/** A text in quotes, as the DOT language has them. */
const quoted = (text: string): string =>
  `"${text.replace(/\\/g, '\\\\').replace(/"/g, '\\"').replace(/\r?\n/g, '\\n')}"`;

/** The network of a plan in the DOT language (graphviz.org/doc/info/lang.html), from left to right. */
export function writePlanDot(plan: Plan): string {
  const { nodes, edges } = graphOf(plan);
  const value = (values: Value[], key: string) => values.find(([k]) => k === key)?.[2] ?? null;
  const lines = nodes.map(({ id, values }) => {
    const dates = [value(values, 'start'), value(values, 'finish')].filter(Boolean).join(' – ');
    const label = [value(values, 'name') || id, dates].filter(Boolean).join('\n');
    const looks = [
      `label=${quoted(String(label))}`,
      `shape=${value(values, 'milestone') ? 'diamond' : 'box'}`,
      ...(value(values, 'critical') ? ['penwidth=2'] : []),
    ];
    return `  ${quoted(id)} [${looks.join(', ')}];`;
  });
  const links = edges.map(({ from, to, values }) => {
    const lag = Number(value(values, 'lag'));
    const type = value(values, 'type') === 'FS' ? '' : String(value(values, 'type'));
    const label = [type, lag === 0 ? '' : `${lag > 0 ? '+' : ''}${Math.round(lag * 10) / 10}d`]
      .filter(Boolean)
      .join(' ');
    return `  ${quoted(from)} -> ${quoted(to)}${label === '' ? '' : ` [label=${quoted(label)}]`};`;
  });
  return `digraph ${quoted(plan.name || 'plan')} {\n  rankdir=LR;\n${[...lines, ...links].join('\n')}\n}\n`;
}
