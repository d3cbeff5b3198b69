/** The rule a task was made from; empty for one that was written by hand. */
export const ruleOf = (source: string): string => source.split('@')[0] ?? '';

/** The rule of work that comes up again after it was done. */
export const AGAIN = 'again';

/** The day of the work a task follows from; null for one that was written by hand. */
export const workedOn = (source: string): string | null => /@(\d{4}-\d{2}-\d{2})$/.exec(source)?.[1] ?? null;
