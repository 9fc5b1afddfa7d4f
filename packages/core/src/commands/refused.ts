/** A command that does not fit the plan; the message names the thing and what was asked of it. */
export class CommandRefused extends Error {}
