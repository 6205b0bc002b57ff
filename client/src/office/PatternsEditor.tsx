import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { freeName } from "../controls/freeName";
import { ShownFields } from "../proposal/ShownTerms";
import { type BlockKind, blockNames, several, useOf } from "../proposal/useBlocks";
import styles from "./office.module.css";

type Pattern = Schemas["ProposalPattern"];
type Block = Schemas["ProposalBlock"];

/** The firm's patterns of proposals: which blocks, with which texts of the Book, and how much they show. */
export function PatternsEditor() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.patterns);
  const { data: texts } = useQuery(ask.texts);
  const [shown, setShown] = useState("");
  const [wrong, setWrong] = useState("");
  if (!data || !texts) return null;
  const pattern = data.all.find((p) => p.id === shown) ?? data.all.find((p) => p.id === data.usual)!;
  async function save(part: Partial<Schemas["ProposalPatterns"]>) {
    try {
      await change.patterns({ was: data!, now: { ...data!, ...part } });
    } finally {
      await queries.invalidateQueries(ask.patterns);
    }
  }
  const saveOne = (now: Partial<Pattern>) =>
    save({ all: data.all.map((p) => (p.id === pattern.id ? { ...p, ...now } : p)) });
  const tell = (done: Promise<unknown>) => void done.then(() => setWrong("")).catch((e: Error) => setWrong(e.message));
  const put = (at: number, block: Block) =>
    tell(saveOne({ blocks: pattern.blocks.map((b, i) => (i === at ? block : b)) }));
  const move = (at: number, to: number) => {
    const blocks = [...pattern.blocks];
    blocks.splice(to, 0, ...blocks.splice(at, 1));
    tell(saveOne({ blocks }));
  };
  return (
    <section className={`panel ${styles.wide}`} aria-label="Patterns of proposals">
      <header>
        <h2>Patterns of proposals</h2>
        <span className="note">a job takes one, and may change it</span>
        <button
          className={`act ${styles.end}`}
          onClick={() => {
            const id = newId();
            const name = freeName(`${pattern.name}, copy`, (n) => data.all.some((p) => p.name === n));
            tell(save({ all: [...data.all, { ...pattern, id, name }] }).then(() => setShown(id)));
          }}
        >
          Copy as a new pattern
        </button>
      </header>
      <div className="pad">
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
        <div className={styles.pair}>
          <Choice
            label="Pattern"
            value={pattern.id}
            options={data.all.map((p) => [p.id, p.id === data.usual ? `${p.name} (new jobs)` : p.name] as const)}
            onChoose={setShown}
          />
          <Field key={`n${pattern.id}`} label="Name" value={pattern.name} onKeep={(n) => saveOne({ name: n.trim() })} />
          <Field
            key={`t${pattern.id}`}
            label="Trade"
            hint="empty for any"
            value={pattern.trade}
            onKeep={(trade) => saveOne({ trade: trade.trim() })}
          />
        </div>
        {pattern.id !== data.usual && (
          <p>
            <button className="act" onClick={() => tell(save({ usual: pattern.id }))}>
              New jobs take this one
            </button>{" "}
            <button
              className="act"
              onClick={() => tell(save({ all: data.all.filter((p) => p.id !== pattern.id) }).then(() => setShown("")))}
            >
              Remove it
            </button>
          </p>
        )}
      </div>
      <div className={styles.brand}>
        <ol className={styles.patternBlocks} aria-label="Blocks of the pattern">
          {pattern.blocks.map((block, at) => {
            const use = useOf[block.kind];
            const fitting = texts.filter((t) => !use || t.use === use || t.use === "other");
            const name = block.title || blockNames[block.kind];
            return (
              <li key={block.id}>
                <b>{name}</b>
                {block.kind !== "signatures" && (
                  <Choice
                    label={`Text of ${name}`}
                    bare
                    value={block.text ?? ""}
                    none="no text of the Book"
                    options={fitting.map((t) => [t.id, t.name, t.trade || "Any trade"] as const)}
                    onChoose={(text) => put(at, { ...block, text: text || null })}
                  />
                )}
                <Check on={block.newPage} onTick={(newPage) => put(at, { ...block, newPage })}>
                  new page
                </Check>
                <span>
                  <button
                    className="act"
                    aria-label={`${name} up`}
                    disabled={at === 0}
                    onClick={() => move(at, at - 1)}
                  >
                    ↑
                  </button>
                  <button
                    className="act"
                    aria-label={`${name} down`}
                    disabled={at === pattern.blocks.length - 1}
                    onClick={() => move(at, at + 1)}
                  >
                    ↓
                  </button>
                  <button
                    className="act"
                    aria-label={`Remove ${name}`}
                    onClick={() => tell(saveOne({ blocks: pattern.blocks.filter((b) => b.id !== block.id) }))}
                  >
                    Remove
                  </button>
                </span>
              </li>
            );
          })}
          <li>
            <Choice
              label="Add a block to the pattern"
              value=""
              none="choose"
              options={(Object.keys(blockNames) as BlockKind[])
                .filter((k) => several.includes(k) || pattern.blocks.every((b) => b.kind !== k))
                .map((k) => [k, blockNames[k]] as const)}
              onChoose={(kind) =>
                tell(
                  saveOne({
                    blocks: [
                      ...pattern.blocks,
                      {
                        id: newId(),
                        kind,
                        rank: "",
                        title: kind === "words" ? "More about it" : "",
                        text: null,
                        words: null,
                        hidden: false,
                        newPage: false,
                      },
                    ],
                  }),
                )
              }
            />
          </li>
        </ol>
        <div className="pad" key={pattern.id}>
          <ShownFields
            terms={pattern.terms}
            set={(field, now) => saveOne({ terms: { ...pattern.terms, [field]: now } })}
          />
        </div>
      </div>
    </section>
  );
}
