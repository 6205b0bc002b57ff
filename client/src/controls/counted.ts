/** So many of something, in words that fit: “1 place”, “3 places”. */
export const counted = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;
