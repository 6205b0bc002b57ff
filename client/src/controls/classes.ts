/** Class names put together; what is not there is left out. */
export const classes = (...names: (string | false | null | undefined)[]) =>
  names.filter(Boolean).join(" ") || undefined;
