import { Button, ToggleButton, ToggleButtonGroup } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { Field } from "../controls/Field";
import { wholeOr } from "../controls/wholeOr";
import { useJob } from "../job/JobContext";
import { Blocks } from "./Blocks";
import styles from "./proposal.module.css";
import { askJob } from "../api/jobQueries";

/** The Proposal station: the page as the customer will see it, and what it shows. */
export function ProposalPage() {
  const [open, { job }] = useJob();
  const { data: blocks } = useQuery(askJob.proposal(job));
  const terms = job.proposal;
  const set = (field: string, was: unknown, now: unknown) =>
    open.send({ type: "setProposal", field, was, now } as never);
  const tell = (field: string, was: unknown, now: unknown) =>
    void open.tell({ type: "setProposal", field, was, now } as never);
  return (
    <div className={styles.proposal}>
      <section className={styles.paperground} aria-label="Proposal as the customer sees it" tabIndex={0}>
        {blocks && <Blocks blocks={blocks} />}
      </section>
      <div className={styles.right}>
        <Button
          variant="contained"
          href={`/api/jobs/${job.id}/proposal.pdf`}
          download={`Proposal ${job.info.number}.pdf`}
        >
          Download the PDF
        </Button>
        <section className="panel" aria-label="What the customer sees">
          <header>
            <h2>What the customer sees</h2>
          </header>
          <div className="pad">
            <span className="note">Price by</span>
            <ToggleButtonGroup
              exclusive
              value={terms.detail}
              aria-label="Price by"
              onChange={(_, v) => v && tell("detail", terms.detail, v)}
            >
              <ToggleButton value="total">total</ToggleButton>
              <ToggleButton value="section">section</ToggleButton>
              <ToggleButton value="place">place</ToggleButton>
            </ToggleButtonGroup>
            <span className="note">Coats</span>
            <ToggleButtonGroup
              exclusive
              value={terms.coats}
              aria-label="Coats"
              onChange={(_, v) => v !== null && tell("coats", terms.coats, v)}
            >
              <ToggleButton value={false}>hidden</ToggleButton>
              <ToggleButton value={true}>shown</ToggleButton>
            </ToggleButtonGroup>
            <span className="note">Parts shown add up to the total shown.</span>
          </div>
        </section>
        <section className="panel" aria-label="Words">
          <header>
            <h2>Words</h2>
            <span className="note">an empty line parts paragraphs</span>
          </header>
          <div className="pad">
            <Field label="Letter" rows={6} value={terms.letter} onKeep={(text) => set("letter", terms.letter, text)} />
            <Field label="Terms" rows={5} value={terms.terms} onKeep={(text) => set("terms", terms.terms, text)} />
            <Field
              label="Prices hold for"
              row
              unit="days"
              value={String(terms.validDays)}
              onKeep={(text) => set("validDays", terms.validDays, wholeOr(text))}
            />
          </div>
        </section>
      </div>
    </div>
  );
}
