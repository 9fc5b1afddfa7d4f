import { Plan } from '@clembo/core';
import { z } from 'zod';
import { UnreadableFile } from '../table/table';

/** Our own file: a plan as core states it, under a header that says what it is. Moments are minutes since 1970. */
const PlanFile = z.object({ format: z.literal('clembo-plan'), version: z.literal(1), plan: Plan });

/** Reads a plan from our JSON; errors name the place in the document. */
export function readPlanJson(text: string, source: string): Plan {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new UnreadableFile(`${source} is not JSON: ${(error as Error).message}.`);
  }
  const result = PlanFile.safeParse(document);
  if (result.success) return result.data.plan;
  const places = result.error.issues.slice(0, 5).map((i) => `${i.path.join('.') || 'the document'}: ${i.message}`);
  throw new UnreadableFile(`${source} is not a plan of Clembo's own format. ${places.join('; ')}.`);
}

export const writePlanJson = (plan: Plan): string =>
  `${JSON.stringify({ format: 'clembo-plan', version: 1, plan }, null, 1)}\n`;
