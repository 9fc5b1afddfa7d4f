// Tests of the interface run side by side, each lane with an application and a database of its own.
const lanes = JSON.parse(process.env.CLEMBO_LANES ?? '[]') as Record<string, string>[];
Object.assign(process.env, lanes[Number(process.env.JEST_WORKER_ID ?? 1) - 1]);
