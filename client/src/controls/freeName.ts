/** The name, with the first number from 2 on that makes it one nobody has where it is taken. */
export function freeName(name: string, taken: (name: string) => boolean) {
  let free = name;
  for (let n = 2; taken(free); n++) free = `${name} ${n}`;
  return free;
}
