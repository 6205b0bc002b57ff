/** What a person types as a number, as the server reads it: a comma for the point is theirs to type. */
export const typedNumber = (text: string) => text.trim().replace(",", ".");
