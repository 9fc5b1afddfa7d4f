import { ColumnMap, type IntakePart, type IntakeState, packTables, unpackTables } from '@clembo/formats';
import { askFor, lastSources, reopenIntake } from '@clembo/store';
import { answer, BadRequest, readId } from '@/server/answer';
import { accessOf } from '@/server/access';
import { store } from '@/server/store';

/** Opens the column maps of what the plan was read from last, to read it anew. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  answer(request, async () => {
    const access = await accessOf({ plan: (await params).id });
    const targetPlan = readId((await params).id, 'plan');
    const sources = (await lastSources(store(), access, targetPlan)).flatMap((s) => {
      const map = ColumnMap.safeParse(s.map);
      const table = s.content && unpackTables(s.content)[0];
      return map.success && table ? [{ table, map: map.data, name: s.name }] : [];
    });
    if (sources.length === 0) throw new BadRequest('This plan was not read from a table.', 404);
    const state: IntakeState = {
      shown: 0,
      used: sources.map((_, k) => k),
      parts: sources.map(({ map }, table): IntakePart => ({ table, map, from: 'said', reasons: [] })),
    };
    const source = [...new Set(sources.map((s) => s.name))].join(', ').slice(0, 300);
    const intake = await reopenIntake(store(), access, {
      source,
      targetPlan,
      tables: packTables(sources.map((s) => s.table)),
      state,
    });
    return { intake, job: await askFor(store(), access, { kind: 'correctIntake', intake, change: { state } }) };
  });
