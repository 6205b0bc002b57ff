import { ToggleButton, ToggleButtonGroup } from "@mui/material";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { classes } from "../controls/classes";
import { Check } from "../controls/Check";
import { Field } from "../controls/Field";
import { wholeOr } from "../controls/wholeOr";
import { useJob } from "../job/JobContext";
import { Headlines } from "./Headlines";
import styles from "./proposal.module.css";

type Terms = Schemas["ProposalTerms"];
type Detail = Schemas["Detail"];

const prices: readonly Detail[] = ["total", "section", "place", "line", "headline", "schedule"];
const scopes: readonly Detail[] = ["section", "place", "line"];

interface Props {
  terms: Terms;
  /** Sets one; rejects with what is wrong with it. */
  set: (field: keyof Terms, now: unknown) => Promise<void>;
}

function Picks(props: { label: string; value: Detail; of: readonly Detail[]; onChoose: (now: Detail) => void }) {
  return (
    <>
      <span className="note">{props.label}</span>
      <ToggleButtonGroup
        exclusive
        value={props.value}
        aria-label={props.label}
        className={classes(styles.picks, props.of.length > 5 && styles.many)}
        onChange={(_, now: Detail | null) => now && props.onChoose(now)}
      >
        {props.of.map((detail) => (
          <ToggleButton key={detail} value={detail}>
            {detail}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </>
  );
}

/** How much the customer sees: of a job, or of a pattern. */
export function ShownFields({ terms, set }: Props) {
  const tick = (field: keyof Terms, words: string) => (
    <Check on={terms[field] as boolean} onTick={(on) => void set(field, on)}>
      {words}
    </Check>
  );
  return (
    <>
      <Picks label="Price by" value={terms.detail} of={prices} onChoose={(now) => void set("detail", now)} />
      <Picks label="What we do, by" value={terms.scopeBy} of={scopes} onChoose={(now) => void set("scopeBy", now)} />
      <div className={styles.ticks} role="group" aria-label="Shown">
        {tick("coats", "coats")}
        {tick("colours", "colours")}
        {tick("products", "products")}
        {tick("quantities", "quantities")}
        {tick("hours", "hours")}
        {terms.detail === "line" && tick("unitPrices", "unit prices")}
      </div>
      <Field
        label="Prices hold for"
        row
        unit="days"
        value={String(terms.validDays)}
        onKeep={(text) => set("validDays", wholeOr(text))}
      />
    </>
  );
}

/** What the customer sees of this job. */
export function ShownTerms() {
  const [open, { job }] = useJob();
  const terms = job.proposal;
  const set = (field: keyof Terms, now: unknown) =>
    open.send({ type: "setProposal", field, was: terms[field], now } as never);
  return (
    <section className="panel" aria-label="What the customer sees">
      <header>
        <h2>What the customer sees</h2>
      </header>
      <div className="pad">
        <ShownFields terms={terms} set={set} />
        <Check
          on={job.pricing.showContingency}
          onTick={(on) =>
            void open.tell({
              type: "setPricing",
              field: "showContingency",
              was: job.pricing.showContingency,
              now: on,
            } as never)
          }
        >
          contingency on its own line
        </Check>
        {terms.detail === "headline" && <Headlines />}
        {terms.detail === "schedule" && (
          <Link to={`/jobs/${job.id}/measure/schedule?view=priced`}>The customer’s schedule, priced</Link>
        )}
        <span className="note">Parts shown add up to the total shown.</span>
      </div>
    </section>
  );
}
