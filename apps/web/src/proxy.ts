import { randomBytes } from 'node:crypto';
import { type NextRequest, NextResponse } from 'next/server';
import { PATH_HEADER, pagePolicy, refusal } from './server/guard';

/** Every page is answered under our own names only, and says what may run on it. Routes of the API guard themselves. */
export function proxy(request: NextRequest): NextResponse {
  if (!isReadable(request.nextUrl.pathname)) return says('There is nothing at this address.', 404);
  // Pages that are shared guard themselves.
  if (request.nextUrl.pathname.startsWith('/s/')) return NextResponse.next();
  const refused = refusal(request.headers, true);
  if (refused) return says(refused, 403);
  const nonce = randomBytes(16).toString('base64');
  const headers = new Headers(request.headers);
  headers.set(PATH_HEADER, request.nextUrl.pathname + request.nextUrl.search);
  // The framework reads the nonce for its own scripts from here.
  headers.set('Content-Security-Policy', pagePolicy(nonce));
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', pagePolicy(nonce));
  return response;
}

const says = (text: string, status: number): NextResponse =>
  new NextResponse(text, { status, headers: { 'Content-Type': 'text/plain' } });

/** True when the escapes of a path mean something. */
function isReadable(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

export const config = { matcher: ['/((?!api/|s/|_next/static/|icon.svg).*)', '/api/(.*%.*)', '/s/(.*%.*)'] };
