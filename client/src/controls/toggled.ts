/** The set with one member in it or out of it: the other way round where it is not said. */
export function toggled<T>(set: ReadonlySet<T>, member: T, present = !set.has(member)): ReadonlySet<T> {
  const now = new Set(set);
  if (present) now.add(member);
  else now.delete(member);
  return now;
}
