import type { Schemas } from "../api/client";

type Named = Pick<Schemas["RevisionView"], "letters" | "isChange">;

/** A revision, or a change order, in the middle of a sentence. */
export const calledIn = ({ letters, isChange }: Named) => `${isChange ? "change order" : "revision"} ${letters}`;

/** It at the beginning of one. */
export const called = ({ letters, isChange }: Named) => `${isChange ? "Change order" : "Revision"} ${letters}`;

/** It where it is clear that revisions are spoken of: by its letters alone. */
export const shortly = (of: Named) => (of.isChange ? calledIn(of) : of.letters);
