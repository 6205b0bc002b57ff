import { useQuery, useQueryClient } from "@tanstack/react-query";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { bookChanged } from "../book/useEntry";
import { useJob } from "../job/JobContext";

export type BlockKind = Schemas["BlockKind"];
export type Held = Schemas["ProposalBlock"];
type TextUse = Schemas["TextUse"];

/** What blocks are called where they have no heading of their own; as the core's. */
export const blockNames: Record<BlockKind, string> = {
  cover: "Cover",
  letter: "Letter",
  about: "About us",
  scope: "What we will do",
  theirs: "What you will do",
  exclusions: "What is not included",
  year: "A year of it",
  price: "Price",
  options: "Your choices",
  payment: "Payment steps",
  time: "How long it takes",
  expect: "What to expect",
  terms: "Terms",
  words: "Words of your own",
  pictures: "Pictures",
  attachments: "Attached",
  estimates: "Further estimates",
  signatures: "Signatures",
};

/** Kinds of which a proposal may have several. */
const several: readonly BlockKind[] = ["expect", "terms", "words", "pictures"];

/** What a text of the Book has to be for, to give a block its words; null for anything. */
const useOf: Partial<Record<BlockKind, TextUse>> = {
  cover: "cover",
  letter: "letter",
  about: "about",
  scope: "scope",
  exclusions: "exclusions",
  expect: "whatToExpect",
  terms: "terms",
};

/** Texts that a block of a kind can have. */
export const textsFor = (texts: readonly Schemas["TextView"][], kind: BlockKind) =>
  texts.filter((t) => !useOf[kind] || t.use === useOf[kind] || t.use === "other");

/** Kinds of block that can still be added, with what they are called. */
export const addable = (there: readonly { kind: BlockKind }[]) =>
  (Object.keys(blockNames) as BlockKind[])
    .filter((k) => several.includes(k) || there.every((b) => b.kind !== k))
    .map((k) => [k, blockNames[k]] as const);

/** A block with nothing set yet; its rank is given where it is put. */
export const newBlock = (kind: BlockKind): Held => ({
  id: newId(),
  kind,
  rank: "",
  title: kind === "words" ? "More about it" : "",
  text: null,
  words: null,
  files: null,
  estimates: null,
  across: null,
  hidden: false,
  newPage: false,
});

/** What can be done to the blocks of the job's proposal. */
export function useBlocks() {
  const [open, { job }] = useJob();
  const queries = useQueryClient();
  const { data: texts } = useQuery(ask.texts);
  const held = job.blocks;
  const set = (block: Held, field: keyof Held, now: unknown) =>
    open.send({ type: "setBlock", block: block.id, field, was: block[field] ?? null, now } as never);
  return {
    held,
    /** Texts that a block of a kind can have. */
    textsFor: (kind: BlockKind) => textsFor(texts ?? [], kind),
    /** The text that a block has, as it stands in the Book now. */
    text: (block: Held) => (texts ?? []).find((t) => t.id === block.text),
    set,
    /** Gives a block words of the job alone. */
    write: (block: Held, words: string) => set(block, "words", words),
    take: (block: string, text: string | null) => open.tell({ type: "takeText", block, text }),
    add: async (kind: BlockKind, after: string | null) => {
      const block = newBlock(kind);
      await open.send({ type: "addBlock", block, after });
      return block.id;
    },
    move: (block: string, after: string | null) => void open.tell({ type: "moveBlock", block, after }),
    remove: (block: string) => void open.tell({ type: "removeBlock", block }),
    /** Keeps the words of a block in the Book: as the next version of its text, or as a new text. */
    keep: async (block: Held, name: string) => {
      const there = (texts ?? []).find((t) => t.id === block.text);
      const id = there?.id ?? newId();
      if (!there) await change.makeEntry({ id, kind: "text", name });
      const entry = {
        kind: "text",
        id,
        version: there?.version ?? 1,
        name: there?.name ?? name,
        section: "Texts",
        trade: there?.trade ?? "",
        use: there?.use ?? useOf[block.kind] ?? "other",
        body: block.words ?? "",
      };
      await change.entry(id, { was: entry.version, entry });
      await bookChanged(queries, id);
      await queries.invalidateQueries(ask.texts);
      await open.send({ type: "takeText", block: block.id, text: id });
    },
  };
}

export type BlocksDo = ReturnType<typeof useBlocks>;
