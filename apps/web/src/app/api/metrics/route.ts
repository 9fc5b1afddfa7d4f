import { isLoopback } from '@/server/address';
import { metrics } from '@/server/metrics';
import { isSame } from '@/server/same';

/**
 * What this process counts, in the open text format of metrics. Where others than this machine reach the server, only
 * for who has the token of CLEMBO_METRICS.
 */
export async function GET(request: Request): Promise<Response> {
  const token = process.env.CLEMBO_METRICS;
  const said = (request.headers.get('authorization') ?? '').replace(/^Bearer /, '');
  if (token ? !isSame(said, token) : !isLoopback()) return new Response('Not found.\n', { status: 404 });
  const { registry } = metrics();
  return new Response(await registry.metrics(), { headers: { 'Content-Type': registry.contentType } });
}

export const dynamic = 'force-dynamic';
