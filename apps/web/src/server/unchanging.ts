/** For what is never changed under its address: whoever has it does not ask again. */
export const UNCHANGING = { 'Cache-Control': 'private, max-age=31536000, immutable' };
