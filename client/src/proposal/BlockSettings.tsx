import { useState } from "react";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Input } from "../controls/Input";
import { useTold } from "../controls/useTold";
import { useJob } from "../job/JobContext";
import { PaymentTerms } from "../price/PaymentTerms";
import { useTermsHeld } from "../price/useTermsHeld";
import { BlockFiles } from "./BlockFiles";
import { FurtherEstimates } from "./FurtherEstimates";
import type { Block } from "./Paper";
import styles from "./proposal.module.css";
import type { BlocksDo } from "./useBlocks";

/** What can be set of the block that is chosen. */
export function BlockSettings({ block, does }: { block: Block; does: BlocksDo }) {
  const [, { job }] = useJob();
  const terms = useTermsHeld();
  const [wrong, said] = useTold();
  const [naming, setNaming] = useState<string | null>(null);
  const held = does.held.find((b) => b.id === block.id);
  if (!held) return null;
  const texts = does.textsFor(block.kind);
  const text = does.text(held);
  const own = held.words !== null && held.words !== undefined;
  return (
    <section className="panel" aria-label={`Block: ${block.title}`}>
      <header>
        <h2>{block.title}</h2>
        <button type="button" className={`act ${styles.end}`} onClick={() => does.remove(held.id)}>
          Remove
        </button>
      </header>
      {(block.kind === "pictures" || block.kind === "attachments") && <BlockFiles held={held} does={does} />}
      {block.kind === "estimates" && <FurtherEstimates held={held} does={does} />}
      <div className="pad">
        {block.kind !== "signatures" && (
          <>
            <Field
              label="Heading"
              hint={held.title === "" ? "empty: the usual one" : undefined}
              value={held.title}
              onKeep={(title) => does.set(held, "title", title.trim())}
            />
            <Choice
              label="Words from the Book"
              value={held.text ?? ""}
              none={texts.length === 0 ? "no text for it yet" : "none"}
              lost="a text that is not in the Book any more"
              options={texts.map(
                (t, i) => [t.id, i < 9 ? `${i + 1} ${t.name}` : t.name, t.trade || "Any trade"] as const,
              )}
              onChoose={(id) => said(does.take(held.id, id || null))}
            />
            {own && (
              <p>
                <span className="note">Written for this job.</span>{" "}
                {held.text && (
                  <button type="button" className="act" onClick={() => said(does.set(held, "words", null))}>
                    Back to the Book’s
                  </button>
                )}{" "}
                <button
                  type="button"
                  className="act"
                  onClick={() => (text ? said(does.keep(held, text.name)) : setNaming(block.title))}
                >
                  Keep in the Book
                </button>
              </p>
            )}
          </>
        )}
        <Check on={held.hidden} onTick={(on) => said(does.set(held, "hidden", on))}>
          Hidden from the customer
        </Check>
        <Check on={held.newPage} onTick={(on) => said(does.set(held, "newPage", on))}>
          Begins on a new page
        </Check>
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </div>
      {block.kind === "payment" && <PaymentTerms held={terms} currency={job.info.currency} />}
      {naming !== null && (
        <Ask
          title="Keep these words in the Book"
          apply="Keep them"
          ready={naming.trim() !== ""}
          width="xs"
          onApply={() => does.keep(held, naming.trim()).then(() => setNaming(null))}
          onClose={() => setNaming(null)}
        >
          <Input label="Name of the text" focus value={naming} onType={setNaming} />
        </Ask>
      )}
    </section>
  );
}
