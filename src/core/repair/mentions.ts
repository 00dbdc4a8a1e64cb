/** Whether a text speaks of a position. @example mentions("May C12 be renewed?", "C1") // false */
export const mentions = (text: string, position: string): boolean =>
  new RegExp(`(^|[^\\p{L}\\d])${position.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}($|[^\\p{L}\\d])`, "iu").test(text);
