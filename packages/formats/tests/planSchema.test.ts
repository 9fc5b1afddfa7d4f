import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import Ajv from 'ajv';
import { demoPlans } from '../../../demo/index';
import { planSchema, writePlanJson } from '../src/index';

// JSON Schema draft 7, checked by a validator that is not ours.
const validate = new Ajv({ schemaId: 'auto', allErrors: true } as never).compile(planSchema());

test('our own plans fit the published schema, and what is no plan does not', () => {
  for (const { current } of demoPlans()) {
    const file = JSON.parse(writePlanJson(current));
    expect(validate(file) ? [] : validate.errors).toEqual([]);
    expect(validate({ ...file, format: 'something else' })).toBe(false);
    expect(validate({ ...file, plan: { ...file.plan, activities: [{ name: 'no reference' }] } })).toBe(false);
  }
});

test('a short plan, as a person would write it, fits it', () => {
  const week = [
    [480, 720],
    [780, 1020],
  ];
  const calendar = { id: 'own', name: 'Own', week: [week, week, week, week, week, [], []], minutesPerDay: 480 };
  const plan = {
    name: 'Short',
    calendars: [calendar],
    calendar: 'own',
    activities: [{ ref: 'A', name: 'Dig' }],
    links: [],
  };
  expect(validate({ format: 'clembo-plan', version: 1, plan }) ? [] : validate.errors).toEqual([]);
});

test('the schema in the documents is this one', () => {
  const written = JSON.parse(readFileSync('docs/plan.schema.json', 'utf8'));
  expect(written).toEqual(JSON.parse(JSON.stringify(planSchema())));
});
