import { useState } from "react";
import { Choice } from "../controls/Choice";
import type { Block } from "./Paper";
import styles from "./proposal.module.css";
import { type BlocksDo, addable } from "./useBlocks";

interface Props {
  blocks: readonly Block[];
  chosen: string;
  onChoose: (id: string) => void;
  onWrite: (id: string) => void;
  does: BlocksDo;
}

const whose = { nobody: "", book: "as in the Book", job: "written for this job" };

/** The blocks of the proposal in their order: chosen, moved by drag and by keys, hidden, added. */
export function BlockList({ blocks, chosen, onChoose, onWrite, does }: Props) {
  const [dragged, setDragged] = useState<string | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const before = (at: number) => (at > 0 ? blocks[at - 1]!.id : null);
  function drop(at: number) {
    const from = blocks.findIndex((b) => b.id === dragged);
    setDragged(null);
    setOver(null);
    if (from < 0 || from === at) return;
    does.move(blocks[from]!.id, from < at ? blocks[at]!.id : before(at));
  }
  // A new block stands before the signatures.
  const last = blocks.findLast((b) => b.kind !== "signatures")?.id ?? null;
  return (
    <>
      <ul className={styles.list} aria-label="Blocks in their order">
        {blocks.map((block, at) => {
          const notes = [
            block.hidden ? "hidden" : !block.hasSomething ? "nothing to say" : "",
            whose[block.wordsOf],
            block.newPage ? "new page" : "",
          ].filter(Boolean);
          return (
            <li
              key={block.id}
              className={[
                block.id === chosen && styles.on,
                !block.isRead && styles.unread,
                block.id === over && styles.over,
              ]
                .filter(Boolean)
                .join(" ")}
              draggable
              onDragStart={(e) => {
                e.dataTransfer.effectAllowed = "move";
                setDragged(block.id);
              }}
              onDragOver={(e) => {
                if (!dragged) return;
                e.preventDefault();
                setOver(block.id);
              }}
              onDragEnd={() => {
                setDragged(null);
                setOver(null);
              }}
              onDrop={() => drop(at)}
            >
              <button
                type="button"
                aria-pressed={block.id === chosen}
                onClick={() => onChoose(block.id)}
                onDoubleClick={() => onWrite(block.id)}
                onKeyDown={(e) => {
                  const texts = does.textsFor(block.kind);
                  const pick = Number(e.key) - 1;
                  if (e.altKey && e.key === "ArrowUp" && at > 0) does.move(block.id, before(at - 1));
                  else if (e.altKey && e.key === "ArrowDown" && at < blocks.length - 1)
                    does.move(block.id, blocks[at + 1]!.id);
                  else if (e.key.toLowerCase() === "w" && !e.ctrlKey && !e.metaKey) onWrite(block.id);
                  else if (e.key.toLowerCase() === "h" && !e.ctrlKey && !e.metaKey) {
                    const held = does.held.find((b) => b.id === block.id);
                    if (held) void does.set(held, "hidden", !held.hidden);
                  } else if (pick >= 0 && texts[pick] && block.kind !== "signatures")
                    void does.take(block.id, texts[pick].id);
                  else return;
                  e.preventDefault();
                }}
              >
                <span className={styles.grip} aria-hidden="true" />
                <span>
                  {block.title}
                  {notes.length > 0 && <small>{notes.join(" · ")}</small>}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      <div className="pad">
        <Choice
          label="Add a block"
          value=""
          none="choose"
          options={addable(blocks)}
          onChoose={(kind) => void does.add(kind, kind === "cover" ? null : chosen || last).then(onChoose)}
        />
        <p className="note">
          On a block: <span className="kbd">W</span> write, <span className="kbd">H</span> hide,{" "}
          <span className="kbd">1</span>…<span className="kbd">9</span> a text of the Book
        </p>
      </div>
    </>
  );
}
