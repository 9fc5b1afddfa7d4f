'use client';
import { fieldAbout } from '@clembo/formats/typed';
import { useMemo } from 'react';
import type { OpenRoom } from '@/workers/planRoom';
import { FindBar } from './FindBar';
import { GridHead } from './GridHead';
import { FaintLine, GridLine } from './GridLine';
import { GridSays } from './GridSays';
import { ROW_HEIGHT } from './grid';
import { NeighbourBlock } from './NeighbourBlock';
import { RepeatSheet } from './RepeatSheet';
import { STRIP_LEAST } from './stripView';
import { type LedgerProps, type LedgerSheet, useLedgerGrid } from './useLedgerGrid';

/** The lines of the ledger as a sheet: chosen, typed into, copied and pasted by ranges; the last line is for what is new. */
export function LedgerGrid(props: LedgerProps) {
  const { planId, open, shape, arrangement, onArrange } = props;
  const sheet = useLedgerGrid(props);
  const { fields, names, widths, scroller, focus, edits, strips, toFocus } = sheet;
  const otherAt = useMemo(
    () => new Map(props.others.flatMap((o) => (o.ref ? [[o.ref, o.name ?? 'someone else']] : []))),
    [props.others],
  );
  const fixed = widths.reduce((a, b) => a + b, 0);
  const grid = `${widths.map((w) => `${w}px`).join(' ')} minmax(${STRIP_LEAST}px, 1fr)`;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      {sheet.finding && (
        <FindBar
          open={open}
          shape={shape}
          fields={fields}
          names={names}
          onShow={async ({ ref, field }) => {
            const { place } = await open.room.lineOf(ref);
            if (place >= 0) sheet.go(place, Math.max(0, fields.indexOf(field)));
          }}
          onReplace={edits.replace}
          onClose={() => {
            sheet.setFinding(false);
            toFocus();
          }}
        />
      )}
      <div
        ref={scroller}
        // biome-ignore lint: the sheet is worked by keys
        tabIndex={0}
        role="treegrid"
        aria-label="Ledger"
        aria-rowcount={sheet.total + 1}
        aria-colcount={fields.length + 1}
        aria-activedescendant={`cell-${focus.row}-${focus.col}`}
        aria-busy={edits.busy}
        onKeyDown={sheet.onKey}
        className="group/sheet relative min-h-0 flex-1 overflow-auto border-t border-line bg-paper outline-none"
      >
        <GridHead
          fields={fields}
          names={names}
          grid={grid}
          width={fixed + STRIP_LEAST}
          view={sheet.view}
          stripWidth={sheet.width}
          onView={sheet.setView}
          statusDay={sheet.statusDay}
          arrangement={arrangement}
          about={(field) => fieldAbout(field)}
          onArrange={onArrange}
        />
        <div style={{ height: sheet.list.getTotalSize(), minWidth: fixed + STRIP_LEAST }} className="relative">
          <Lines sheet={sheet} open={open} fresh={shape.lines} grid={grid} otherAt={otherAt} />
          <OpenBlock sheet={sheet} open={open} cellsWidth={fixed - widths[0]!} />
        </div>
      </div>
      {strips.drag?.line && (
        <svg aria-hidden className="pointer-events-none fixed inset-0 z-50 h-full w-full">
          <line {...strips.drag.line} stroke="var(--color-ink)" strokeWidth={1.6} />
          <circle cx={strips.drag.line.x2} cy={strips.drag.line.y2} r={4} fill="var(--color-ink)" />
        </svg>
      )}
      {sheet.repeating && (
        <RepeatSheet planId={planId} open={open} refs={sheet.repeating} onClose={() => sheet.setRepeating(null)} />
      )}
      <GridSays
        open={open}
        acts={sheet.acts}
        area={sheet.anchor === null ? null : sheet.area}
        mayEdit={sheet.may.edit}
        strips={strips}
        edits={edits}
      />
    </div>
  );
}

interface LinesProps {
  sheet: LedgerSheet;
  open: OpenRoom;
  /** The line for something new. */
  fresh: number;
  grid: string;
  otherAt: ReadonlyMap<string, string>;
}

function Lines({ sheet, open, fresh, grid, otherAt }: LinesProps) {
  const { at, focus, area, anchor, edits, landing, strips } = sheet;
  const { editing } = sheet.cells;
  return sheet.items.map((v) => {
    const line = at(v.index);
    // What leaves at one end comes in at the other: elements are used again.
    const slot = v.index % sheet.slots;
    if (!sheet.inFull(v.index) && v.index !== focus.row)
      return <FaintLine key={`faint ${slot}`} line={line} top={v.start} grid={grid} />;
    return (
      <GridLine
        key={slot}
        line={line}
        fresh={v.index === fresh}
        index={v.index}
        top={v.start}
        grid={grid}
        fields={sheet.fields}
        names={sheet.names}
        view={sheet.view}
        ground={sheet.ground}
        statusDay={sheet.statusDay}
        landing={landing && line?.ref === landing.ref ? landing.place : null}
        carries={sheet.outlined && Boolean(line?.ref)}
        focusCol={v.index === focus.row ? focus.col : null}
        chosenFrom={anchor !== null && v.index >= area.top && v.index <= area.bottom ? area.left : null}
        chosenTo={area.right}
        wrongs={(line && edits.wrongs.get(line.ref)) ?? null}
        pending={(line && edits.pending.get(line.ref)) ?? null}
        would={(line && strips.foreseen?.bars[line.ref]) ?? null}
        editing={editing?.row === v.index ? editing : null}
        open={editing?.row === v.index ? open : null}
        other={otherAt.get(line?.ref ?? '') ?? null}
        on={sheet.on}
      />
    );
  });
}

/** The activity that stands open with its neighbours. */
function OpenBlock({ sheet, open, cellsWidth }: { sheet: LedgerSheet; open: OpenRoom; cellsWidth: number }) {
  const { opened, openAt, around, strips, edits } = sheet;
  const line = openAt >= 0 ? sheet.at(openAt) : null;
  if (!around || !line || opened === null || line.ref !== opened) return null;
  return (
    <div
      role="row"
      className="absolute inset-x-0 z-10"
      style={{ transform: `translateY(${(sheet.list.measurementsCache[openAt]?.start ?? 0) + ROW_HEIGHT + 4}px)` }}
    >
      <div role="gridcell">
        <NeighbourBlock
          open={open}
          line={line}
          neighbours={around}
          nameWidth={sheet.widths[0]!}
          cellsWidth={cellsWidth}
          stripWidth={sheet.width}
          view={sheet.view}
          ground={sheet.ground}
          statusDay={sheet.statusDay}
          would={(ref) => strips.foreseen?.bars[ref] ?? null}
          onGrip={(e, grip, ref, strip) => strips.grip(e, grip, ref, strip, true)}
          onWalk={sheet.walk}
          onChange={(command, words) => {
            sheet.toFocus();
            void strips.propose(
              (room) => (strips.follow ? room.withFollowers(command) : Promise.resolve(command)),
              words,
            );
          }}
          onLink={(field, text) => void edits.addLink(opened, field, text)}
        />
      </div>
    </div>
  );
}
