import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import { useJob } from "../job/JobContext";
import styles from "./revisions.module.css";
import { useRevisionsTold } from "./useRevisionsTold";

/** From the price of the one to that of the other, step by step. */
export function FromTo({ compared }: { compared: Schemas["ComparedView"] }) {
  const pair = (label: string, [was, now]: readonly string[], unit = "") => (
    <li>
      {label}
      <span>
        {was} → <b>{now}</b> {unit}
      </span>
    </li>
  );
  return (
    <section className="panel" aria-label={`From ${compared.earlier} to ${compared.later}`}>
      <header>
        <h2>
          From {compared.earlier} to {compared.later}
        </h2>
        <span className="note">{compared.by}</span>
      </header>
      <ul className={styles.picture}>
        {compared.steps.map((step, i) => (
          <li key={i}>
            <b>{step.label}</b>
            <span aria-hidden="true">
              <i
                className={
                  i === 0 || i === compared.steps.length - 1 ? styles.whole : step.less ? styles.less : styles.more
                }
                style={{ left: `${step.from}%`, width: `${step.width}%` }}
              />
            </span>
            <span>{step.amount}</span>
          </li>
        ))}
      </ul>
      <ul className="rows">
        {pair("Hours", compared.hours, "h")}
        {pair("Margin", compared.margin, "%")}
        {pair("Customer pays", compared.total)}
        <li>
          The same <span>{compared.same} lines, to the cent and the word</span>
        </li>
      </ul>
    </section>
  );
}

/** Sends the job as it stands as the next revision. */
export function SendPanel({ revisions }: { revisions: Schemas["RevisionsView"] }) {
  const [, { job }] = useJob();
  const { data: view } = useQuery(askJob.proposal(job));
  const told = useRevisionsTold();
  const [asked, setAsked] = useState<{ id: string; fact: string } | null>(null);
  const [how, setHow] = useState("handed over");
  const [despite, setDespite] = useState("");
  if (revisions.closed !== "")
    return (
      <section className="panel" aria-label="Send">
        <p className="pad note">{revisions.closed}</p>
      </section>
    );
  const holes = view?.unfinished ?? [];
  return (
    <section className="panel" aria-label="Send">
      <div className="pad">
        <Button variant="contained" onClick={() => setAsked({ id: newId(), fact: newId() })}>
          Send revision {revisions.next}
        </Button>
        <span className="note">
          It is frozen as it stands: its numbers, words and PDF stay for good, whatever the job becomes.
        </span>
      </div>
      {asked && (
        <Ask
          title={`Send revision ${revisions.next}`}
          apply="It is sent"
          width="sm"
          ready={how.trim() !== "" && (holes.length === 0 || despite.trim() !== "")}
          onApply={() =>
            change
              .sendRevision(job.id, { ...asked, base: job.version, how: how.trim(), despite: despite.trim() })
              .then(told)
              .then(() => setAsked(null))
          }
          onClose={() => setAsked(null)}
        >
          <p>
            The PDF is made and kept here; you give it to the customer yourself. Its state reads <b>sent</b> from now
            on, and what happens to it afterwards is recorded with it.
          </p>
          <Input label="How it goes out" focus value={how} onType={setHow} />
          {holes.length > 0 && (
            <>
              <p>Not finished:</p>
              <ul>
                {holes.map((hole) => (
                  <li key={hole.key}>
                    {hole.says} <span className="note">{hole.why}</span>
                  </li>
                ))}
              </ul>
              <Input label="Why it goes out all the same" value={despite} onType={setDespite} />
            </>
          )}
        </Ask>
      )}
    </section>
  );
}
