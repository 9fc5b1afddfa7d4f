/** That this process lives, for whoever watches it. Nothing is looked at. */
export const GET = (): Response => Response.json({ alive: true });

export const dynamic = 'force-dynamic';
