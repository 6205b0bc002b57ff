import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { type Schemas, api } from "../api/client";
import { Field } from "../figure/Field";
import { useJob } from "../job/JobContext";

export type Finding = Schemas["Finding"];

/** What a second estimator would ask of this job. */
export function useChecks(): readonly Finding[] | undefined {
  const [, { job, answers: now }] = useJob();
  // While edits follow one another the checks wait; what they say is of no use in between.
  const [answers, setAnswers] = useState(now);
  useEffect(() => {
    const settled = setTimeout(() => setAnswers(now), 600);
    return () => clearTimeout(settled);
  }, [now]);
  return useQuery({
    queryKey: ["checks", job.id, answers],
    queryFn: async () => (await api.GET("/api/jobs/{id}/checks", { params: { path: { id: job.id } } })).data!,
    placeholderData: (kept) => kept,
  }).data;
}

/** The checks, one after another: each says why, leads to its place, and can be set aside with a reason. */
export function Checks(props: {
  findings: readonly Finding[];
  at: string | null;
  onGo: (finding: Finding) => void;
  onClose: () => void;
}) {
  const [open, { job }] = useJob();
  const { findings } = props;
  const standing = findings.filter((f) => f.reason === "");
  const current = findings.find((f) => f.key === props.at);
  const aside = (finding: Finding, reason: string) =>
    open.send({ type: "setAside", check: finding.key, was: finding.reason, reason });
  return (
    <section className="panel checks" aria-label="Checks">
      <header>
        <h2>{standing.length === 0 ? "Nothing to check" : `${standing.length} to check`}</h2>
        <span className="note">
          <span className="kbd">N</span> the next one
        </span>
        <button className="plain" onClick={props.onClose}>
          Close
        </button>
      </header>
      {current && (
        <div className="current" role="status" key={current.key}>
          <p>
            <b>{current.kind}.</b> {current.says}
          </p>
          <p className="note">{current.why}</p>
          <p className="note">
            {current.place && <Link to={`/jobs/${job.id}/measure?place=${current.place}`}>its tape line</Link>}{" "}
            {current.entry && <Link to={`/jobs/${job.id}/book/${current.entry}`}>its entry in this job</Link>}
          </p>
          <Field
            key={current.key + current.reason}
            label={current.reason === "" ? "Set it aside because" : "Set aside because (empty brings it back)"}
            value={current.reason}
            onKeep={(reason) => aside(current, reason.trim())}
          />
        </div>
      )}
      <ul aria-label="All checks">
        {findings.map((f) => (
          <li key={f.key} className={f.reason === "" ? undefined : "aside"}>
            <button aria-current={f.key === props.at} onClick={() => props.onGo(f)}>
              <b>{f.kind}</b> {f.says}
              {f.reason !== "" && <small> set aside: {f.reason}</small>}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
