/** The date of a file in an archive: archives count years from 1980. */
export const zipDate = (date: Date): Date => new Date(Math.max(date.getTime(), Date.UTC(1980, 0, 2)));
