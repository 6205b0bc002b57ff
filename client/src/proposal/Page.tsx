import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { askJob } from "../api/jobQueries";
import { ask } from "../api/queries";
import { Words } from "../controls/Words";
import { useJob } from "../job/JobContext";
import { BlockList } from "./BlockList";
import { BlockSettings } from "./BlockSettings";
import { type Block, Paper } from "./Paper";
import { Patterns } from "./Patterns";
import styles from "./proposal.module.css";
import { ShownTerms } from "./ShownTerms";
import { Unfinished } from "./Unfinished";
import { useBlocks } from "./useBlocks";

/** The page as the customer will read it, written in its place, and what it shows. */
export function Page() {
  const [, { job }] = useJob();
  const { data: view } = useQuery(askJob.proposal(job));
  const { data: names } = useQuery(ask.figureNames);
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState(search.get("block") ?? "");
  const [writing, setWriting] = useState("");
  const blocks = useBlocks();
  if (!view) return null;
  const block = view.document.blocks.find((b) => b.id === chosen);
  function choose(id: string) {
    setChosen(id);
    document.getElementById(`block-${id}`)?.scrollIntoView({ block: "nearest" });
  }
  const pen = (of: Block) => {
    const set = job.blocks.find((b) => b.id === of.id);
    if (!set) return null;
    if (of.id === writing)
      return (
        <Words
          label={`Words of ${of.title}`}
          onPage
          focus
          names={names ?? []}
          value={set.words ?? blocks.text(set)?.body ?? ""}
          onKeep={(words) => blocks.write(set, words)}
          onLeave={() => setWriting("")}
        />
      );
    return of.id === chosen && of.kind !== "signatures" ? (
      <div className={styles.pen}>
        <button type="button" className="act" onClick={() => setWriting(of.id)}>
          {of.words.length > 0 ? "Write" : "Write something here"}
        </button>
      </div>
    ) : null;
  };
  return (
    <div className={styles.proposal}>
      <section className={`panel ${styles.blocks}`} aria-label="Blocks">
        <header>
          <h2>Blocks</h2>
          <span className="note">
            drag or <span className="kbd">Alt ↑↓</span>
          </span>
        </header>
        <BlockList
          blocks={view.document.blocks}
          chosen={chosen}
          onChoose={choose}
          onWrite={(id) => {
            choose(id);
            setWriting(id);
          }}
          does={blocks}
        />
        <Patterns />
      </section>
      <section className={styles.paperground} aria-label="Proposal as the customer sees it" tabIndex={0}>
        <Paper
          document={view.document}
          brand={view.brand}
          at={{ chosen, writing, onChoose: setChosen, onWrite: setWriting, pen }}
        />
      </section>
      <div className={styles.right}>
        <Button
          variant="contained"
          href={`/api/jobs/${job.id}/proposal.pdf`}
          download={`Proposal ${job.info.number}.pdf`}
        >
          Download the PDF
        </Button>
        <Button
          variant="outlined"
          href={`/api/jobs/${job.id}/proposal.pdf?inline=true`}
          target="_blank"
          rel="noreferrer"
        >
          Print
        </Button>
        {block && <BlockSettings key={block.id} block={block} does={blocks} />}
        <Unfinished view={view} onBlock={choose} />
        <ShownTerms />
      </div>
    </div>
  );
}
