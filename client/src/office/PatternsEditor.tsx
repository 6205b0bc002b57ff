import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { ShownFields } from "../proposal/ShownTerms";
import { addable, blockNames, newBlock, textsFor } from "../proposal/useBlocks";
import { NamedPanel, UsualOrNot, WhichOne, useNamedSet } from "./NamedSet";
import styles from "./office.module.css";

type Block = Schemas["ProposalBlock"];

/** The firm's patterns of proposals: which blocks, with which texts of the Book, and how much they show. */
export function PatternsEditor() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.patterns);
  const { data: texts } = useQuery(ask.texts);
  const set = useNamedSet(data, (now) =>
    change.patterns({ was: data!, now }).finally(() => queries.invalidateQueries(ask.patterns)),
  );
  const { one: pattern, tell, saveOne } = set;
  if (!pattern || !texts) return null;
  const put = (at: number, block: Block) =>
    tell(saveOne({ blocks: pattern.blocks.map((b, i) => (i === at ? block : b)) }));
  const move = (at: number, to: number) => {
    const blocks = [...pattern.blocks];
    blocks.splice(to, 0, ...blocks.splice(at, 1));
    tell(saveOne({ blocks }));
  };
  return (
    <NamedPanel
      name="Patterns of proposals"
      note="a job takes one, and may change it"
      copy="Copy as a new pattern"
      set={set}
      head={
        <>
          <div className={styles.pair}>
            <WhichOne label="Pattern" set={set} />
            <Field
              key={`n${pattern.id}`}
              label="Name"
              value={pattern.name}
              onKeep={(n) => saveOne({ name: n.trim() })}
            />
            <Field
              key={`t${pattern.id}`}
              label="Trade"
              hint="empty for any"
              value={pattern.trade}
              onKeep={(trade) => saveOne({ trade: trade.trim() })}
            />
          </div>
          <UsualOrNot set={set} />
        </>
      }
    >
      <div className={styles.brand}>
        <ol className={styles.patternBlocks} aria-label="Blocks of the pattern">
          {pattern.blocks.map((block, at) => {
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
                    options={textsFor(texts, block.kind).map((t) => [t.id, t.name, t.trade || "Any trade"] as const)}
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
              options={addable(pattern.blocks)}
              onChoose={(kind) => tell(saveOne({ blocks: [...pattern.blocks, newBlock(kind)] }))}
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
    </NamedPanel>
  );
}
