/** What is said between the process of the worker and a hand: one task at a time, its steps, its answer. */
export type ToHand = { task: string; input: unknown };
export type FromHand =
  | { step: string; share: number }
  | { value: unknown }
  /** Refused in words that a person can act on. */
  | { refused: string }
  /** A fault of the program itself. */
  | { fault: string };
