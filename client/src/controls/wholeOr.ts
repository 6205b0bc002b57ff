/** A whole number where it is one; otherwise the text, for the server to say what is wrong with it. */
export const wholeOr = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : text);
