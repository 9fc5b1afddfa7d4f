/** Stands for "no value" in arrays of whole numbers. */
export const NONE = -2147483648;
export const FAR = 2147483647;

/** Slot that a start moment falls in. */
export const startSlot = (moment: number, slotMinutes: number): number => Math.floor(moment / slotMinutes);
/** Boundary that a finish moment stands for. */
export const finishSlot = (moment: number, slotMinutes: number): number => Math.ceil(moment / slotMinutes);
