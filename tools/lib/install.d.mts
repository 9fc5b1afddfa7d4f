/** Where PostgreSQL's programs are. */
export function findPostgres(): string;
