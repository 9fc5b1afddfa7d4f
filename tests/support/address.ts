/** Where the application runs that is tested. */
export const address = process.env.CLEMBO_ADDRESS ?? 'http://127.0.0.1:3000';
