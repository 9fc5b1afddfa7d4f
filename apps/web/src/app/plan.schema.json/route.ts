import { planSchema } from '@clembo/formats';
import { NextResponse } from 'next/server';

/** The JSON Schema of our own plan files, for whoever writes them. */
export const GET = (): Response =>
  NextResponse.json(planSchema(), { headers: { 'Content-Type': 'application/schema+json' } });
