import { z } from 'zod';
import { PlanFile } from './planJson';

/** The JSON Schema of our own plan files, made from the schema that they are read by. */
export const planSchema = (): object => ({
  $id: 'clembo-plan-1',
  title: 'A plan of Clembo',
  ...z.toJSONSchema(PlanFile, { target: 'draft-7', io: 'input', unrepresentable: 'any' }),
});
