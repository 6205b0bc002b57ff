import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Field } from "../controls/Field";
import { useJob } from "../job/JobContext";
import type { CellAt } from "./range";
import styles from "./work.module.css";
import { askJob } from "../api/jobQueries";

type Finding = Schemas["Finding"];

/** What a second estimator would ask of this job. */
function useChecks(): readonly Finding[] | undefined {
  const [, { job }] = useJob();
  const now = job.version;
  // While edits follow one another the checks wait; what they say is of no use in between.
  const [settledAt, setSettledAt] = useState(now);
  useEffect(() => {
    const settled = setTimeout(() => setSettledAt(now), 600);
    return () => clearTimeout(settled);
  }, [now]);
  return useQuery(askJob.checks({ id: job.id, version: settledAt })).data;
}

/** The walk through the checks: which one stands, and going to the next. */
export function useWalk(here: CellAt | null, show: (at: CellAt, focus: boolean) => void) {
  const [, { job, cells }] = useJob();
  const findings = useChecks();
  const [on, setOn] = useState(false);
  const [at, setAt] = useState<string | null>(null);
  const standing = useMemo(() => findings?.filter((f) => f.reason === ""), [findings]);

  const go = useCallback(
    (found: Finding) => {
      setOn(true);
      setAt(found.key);
      const place = found.place ?? here?.place ?? job.places[0]?.id;
      const work =
        found.work ?? (found.place && job.work.find((w) => cells.has(`${w.id}/${found.place}`))?.id) ?? job.work[0]?.id;
      if (place && work) show({ work, place }, true);
    },
    [cells, here, job, show],
  );

  const next = useCallback(
    (step: 1 | -1) => {
      setOn(true);
      if (!standing?.length) return setAt(null);
      const i = standing.findIndex((f) => f.key === at);
      go(standing[(i + step + standing.length) % standing.length] ?? standing[0]!);
    },
    [at, go, standing],
  );

  return useMemo(
    () => ({ findings, standing, on, at, go, next, close: () => setOn(false) }),
    [findings, standing, on, at, go, next],
  );
}

/** The checks, one after another: each says why, leads to its place, and can be set aside with a reason. */
export function Checks({ walk }: { walk: ReturnType<typeof useWalk> }) {
  const [open] = useJob();
  const { findings = [], standing = [] } = walk;
  const aside = (finding: Finding, reason: string) =>
    open.send({ type: "setAside", check: finding.key, was: finding.reason, reason });
  return (
    <section className={`panel ${styles.checks}`} aria-label="Checks">
      <header>
        <h2>{standing.length === 0 ? "Nothing to check" : `${standing.length} to check`}</h2>
        {standing.length > 0 && (
          <span className="note">
            <span className="kbd">N</span> the next one
          </span>
        )}
        <button className="plain" onClick={walk.close}>
          Close
        </button>
      </header>
      <ul aria-label="All checks">
        {findings.map((f) => (
          <li key={f.key} className={f.reason === "" ? undefined : styles.aside}>
            <button aria-expanded={f.key === walk.at} onClick={() => walk.go(f)}>
              <b>{f.kind}</b> {f.says}
              {f.reason !== "" && <small> set aside: {f.reason}</small>}
            </button>
            {f.key === walk.at && <Settle finding={f} onAside={(reason) => aside(f, reason)} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Why a finding is worth a look, where it is, what would settle it, and the reason for which it is set aside. */
function Settle({ finding, onAside }: { finding: Finding; onAside: (reason: string) => Promise<void> }) {
  const [open, { job }] = useJob();
  return (
    <div className={styles.current} role="status">
      <p className="note">{finding.why}</p>
      <p className="note">
        {finding.place && <Link to={`/jobs/${job.id}/measure?place=${finding.place}`}>its tape line</Link>}{" "}
        {finding.entry && <Link to={`/jobs/${job.id}/book/${finding.entry}`}>its entry in this job</Link>}
      </p>
      {finding.offers.length > 0 && (
        <p className="acts">
          {finding.offers.map((offer) => (
            <button key={offer.words} className="act" onClick={() => void open.tell(offer.does)}>
              {offer.words}
            </button>
          ))}
        </p>
      )}
      <Field
        label={finding.reason === "" ? "Set it aside because" : "Set aside because (empty brings it back)"}
        value={finding.reason}
        onKeep={(reason) => onAside(reason.trim())}
      />
    </div>
  );
}
