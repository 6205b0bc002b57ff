/** Months of a year, as they stand on ticks. */
export const months = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"] as const;

/** Months in words; `none` where none is named. */
export const monthsInWords = (named: readonly number[], none: string) =>
  named.length === 0 ? none : named.map((month) => months[month - 1]).join(", ");
