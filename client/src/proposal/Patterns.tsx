import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { useTold } from "../controls/useTold";
import { useJob } from "../job/JobContext";

/** Takes one of the firm's patterns, or keeps the proposal as it is made as a new one. */
export function Patterns() {
  const [open, { job }] = useJob();
  const queries = useQueryClient();
  const { data } = useQuery(ask.patterns);
  const [naming, setNaming] = useState<string | null>(null);
  const [wrong, tell] = useTold();
  if (!data) return null;
  async function keep() {
    const pattern = {
      id: newId(),
      name: naming!.trim(),
      trade: "",
      terms: { ...job.proposal, headlines: [] },
      // What is attached is the firm's own paper; pictures are of this job.
      blocks: job.blocks.map((b) => ({
        ...b,
        words: null,
        files: b.kind === "attachments" ? b.files : null,
        estimates: null,
      })),
    };
    await change.patterns({ was: data!, now: { ...data!, all: [...data!.all, pattern] } });
    await queries.invalidateQueries(ask.patterns);
    setNaming(null);
  }
  return (
    <div className="pad">
      <Choice
        label="Make it like a pattern"
        value=""
        none="choose"
        hint="blocks, texts and detail; what was written for this job stays with its block"
        wrong={wrong}
        options={data.all.map((p) => [p.id, p.name, p.trade || "Any trade"] as const)}
        onChoose={(id) => tell(open.send({ type: "takePattern", pattern: data.all.find((p) => p.id === id)! }))}
      />
      <button type="button" className="act" onClick={() => setNaming("")}>
        Keep this as a pattern
      </button>
      {naming !== null && (
        <Ask
          title="Keep this as a pattern"
          apply="Keep it"
          ready={naming.trim() !== ""}
          width="xs"
          onApply={keep}
          onClose={() => setNaming(null)}
        >
          <p className="note">
            The blocks in this order with their texts of the Book, and what the customer sees. Words that were written
            for this job alone, and pictures, are not kept.
          </p>
          <Input label="Name of the pattern" focus value={naming} onType={setNaming} />
        </Ask>
      )}
    </div>
  );
}
