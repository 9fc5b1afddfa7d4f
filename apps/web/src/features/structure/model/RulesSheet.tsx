'use client';
import type { Condition, Effect, MatchRule, SelectField } from '@clembo/core';
import { selectFields } from '@clembo/core';
import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { WherePart } from '@/ui/sentence/WherePart';
import { Sheet } from '@/ui/Sheet';
import { wrong } from '@/ui/Toasts';
import type { RuleShown } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import { EVERYTHING } from './useModel';

interface Props {
  open: OpenRoom;
  fields: readonly SelectField[];
  busy: boolean;
  onRules: (rules: MatchRule[], words: string) => void;
  onRun: (rules: MatchRule[]) => void;
  onChoose: (where: Condition) => void;
  onClose: () => void;
}

type Works = readonly { ref: string; name: string }[];

const SELECT = 'rounded border border-line bg-paper px-1.5 py-0.5';

/** Rules that match elements to work, in their order, each with what it catches. */
export function RulesSheet({ open, fields, busy, onRules, onRun, onChoose, onClose }: Props) {
  const rules = open.head.matchRules;
  const [works, setWorks] = useState<Works>([]);
  useEffect(() => {
    let current = true;
    open.room.matching({ works: true, kinds: false }).then((m) => current && setWorks(m.works), wrong);
    return () => {
      current = false;
    };
  }, [open]);
  const [shown, setShown] = useState<RuleShown[] | null>(null);
  useEffect(() => {
    let current = true;
    open.room.ruleList(rules).then((list) => current && setShown(list), wrong);
    return () => {
      current = false;
    };
  }, [open, rules]);
  const fresh = shown?.reduce((n, r) => n + r.fresh, 0) ?? 0;
  const move = (k: number, by: number) => {
    const list = [...rules];
    const [rule] = list.splice(k, 1);
    list.splice(k + by, 0, rule!);
    onRules(list, 'Reorder match rules');
  };
  return (
    <Sheet
      title="Match rules"
      note="From top to bottom; what has work of the same kind already stays as it is"
      onClose={onClose}
    >
      <ol className="space-y-2">
        {(shown ?? []).map((r, k) => (
          <li
            key={r.rule.id}
            className="flex items-start gap-3 rounded-md border border-line bg-paper px-3 py-2"
            data-rule={r.rule.id}
          >
            <span className="w-5 text-right text-soft">{k + 1}</span>
            <div className="min-w-0 flex-1">
              {r.rule.name !== '' && <p className="font-semibold">{r.rule.name}</p>}
              <p>{r.words}</p>
              <p className={r.trouble ? 'text-madder' : 'text-[13.5px] text-soft'}>
                {r.trouble ??
                  [
                    `catches ${r.caught}`,
                    `${r.fresh} new`,
                    ...(r.taken > 0 ? [`${r.taken} have such work already`] : []),
                    ...(r.without > 0 ? [`${r.without} find no activity`] : []),
                  ].join(' · ')}
              </p>
            </div>
            <button type="button" className="quiet px-2! py-0.5! text-[13px]" onClick={() => onChoose(r.rule.where)}>
              Show
            </button>
            <button
              type="button"
              aria-label="Earlier"
              className="rounded p-1 hover:bg-line disabled:opacity-30"
              disabled={k === 0 || busy}
              onClick={() => move(k, -1)}
            >
              <ArrowUp size={15} />
            </button>
            <button
              type="button"
              aria-label="Later"
              className="rounded p-1 hover:bg-line disabled:opacity-30"
              disabled={k === rules.length - 1 || busy}
              onClick={() => move(k, 1)}
            >
              <ArrowDown size={15} />
            </button>
            <button
              type="button"
              aria-label={`Remove rule ${k + 1}`}
              className="rounded p-1 hover:bg-line"
              disabled={busy}
              onClick={() =>
                onRules(
                  rules.filter((x) => x.id !== r.rule.id),
                  'Remove a match rule',
                )
              }
            >
              <Trash2 size={15} />
            </button>
          </li>
        ))}
        {shown?.length === 0 && (
          <li className="text-soft">
            No rule yet. A rule says which elements belong to which activity, by what is known of them; it can be run
            again when a newer model comes.
          </li>
        )}
      </ol>
      <div className="mt-3 flex items-center gap-3">
        <button type="button" className="action" disabled={busy || fresh === 0} onClick={() => onRun([...rules])}>
          {fresh === 0
            ? 'The rules find nothing new'
            : `Match ${fresh} ${fresh === 1 ? 'element' : 'elements'} by these rules`}
        </button>
      </div>
      <NewRule
        open={open}
        fields={fields}
        works={works}
        onAdd={(rule) => onRules([...rules, rule], 'Add a match rule')}
      />
    </Sheet>
  );
}

function NewRule({
  open,
  fields,
  works,
  onAdd,
}: {
  open: OpenRoom;
  fields: readonly SelectField[];
  works: Works;
  onAdd: (rule: MatchRule) => void;
}) {
  const [where, setWhere] = useState<Condition>(EVERYTHING);
  const [effect, setEffect] = useState<Effect>('builds');
  const [by, setBy] = useState<'one' | 'same'>('one');
  const [to, setTo] = useState('');
  const [element, setElement] = useState(fields[0]?.id ?? '');
  const [activity, setActivity] = useState('ref');
  const [preview, setPreview] = useState<RuleShown | null>(null);
  const at = works.find((w) => w.ref === to || `${w.ref} ${w.name}` === to || w.name === to);
  const rule: MatchRule = {
    id: `rule ${open.head.matchRules.reduce((n, r) => Math.max(n, Number(/\d+$/.exec(r.id)?.[0] ?? 0)), 0) + 1}`,
    name: '',
    where,
    effect,
    to: by === 'one' ? (at?.ref ?? null) : null,
    same: by === 'same' ? { element, activity } : null,
  };
  const mark = JSON.stringify(rule);
  useEffect(() => {
    let current = true;
    open.room.ruleList([JSON.parse(mark) as MatchRule]).then(([r]) => current && setPreview(r ?? null), wrong);
    return () => {
      current = false;
    };
  }, [open, mark]);
  const ready = rule.same !== null || rule.to !== null;
  return (
    <section aria-label="A new rule" className="mt-6 rounded-md border border-line bg-paper px-4 py-3">
      <h3 className="font-serif text-[16px] font-semibold">A new rule</h3>
      <div className="mt-2 flex flex-wrap items-center gap-x-1.5 gap-y-2">
        Elements where{' '}
        <WherePart
          open={open}
          where={where}
          act="Catch"
          onChange={setWhere}
          of={{ fields, textsOf: (id) => open.room.elementTexts(id) }}
        />{' '}
        <select
          aria-label="Effect"
          className={SELECT}
          value={effect}
          onChange={(e) => setEffect(e.target.value as Effect)}
        >
          <option value="builds">are built by</option>
          <option value="removes">are removed by</option>
          <option value="stands">stand for</option>
        </select>
        <select
          aria-label="Whom"
          className={SELECT}
          value={by}
          onChange={(e) => setBy(e.target.value as 'one' | 'same')}
        >
          <option value="one">the activity</option>
          <option value="same">the activity with the same value:</option>
        </select>
        {by === 'one' ? (
          <>
            <input
              aria-label="Activity"
              list="rule-works"
              value={to}
              onChange={(e) => setTo(e.target.value)}
              className={`${SELECT} w-64`}
            />
            <datalist id="rule-works">
              {works.map((w) => (
                <option key={w.ref} value={`${w.ref} ${w.name}`} />
              ))}
            </datalist>
          </>
        ) : (
          <>
            <select
              aria-label="Field of elements"
              className={SELECT}
              value={element}
              onChange={(e) => setElement(e.target.value)}
            >
              {selectFields({ codeFields: open.head.codeFields, effortDay: null, fields }).map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
            </select>
            =
            <select
              aria-label="Field of activities"
              className={SELECT}
              value={activity}
              onChange={(e) => setActivity(e.target.value)}
            >
              {selectFields(open.head)
                .filter((f) => f.type === 'text')
                .map((f) => (
                  <option key={f.id} value={f.id}>
                    {f.name}
                  </option>
                ))}
            </select>
          </>
        )}
        <button type="button" className="quiet py-0.5!" disabled={!ready} onClick={() => onAdd(rule)}>
          Add the rule
        </button>
      </div>
      {preview && ready && (
        <p className="mt-2 text-[13.5px] text-soft" role="status">
          {preview.trouble ??
            `It would catch ${preview.caught}, ${preview.fresh} of them without such work${preview.without > 0 ? `; ${preview.without} find no activity` : ''}.`}
        </p>
      )}
    </section>
  );
}
