import { Alert, Snackbar } from "@mui/material";
import { Suspense, useCallback, useEffect, useLayoutEffect, useState } from "react";
import { Link, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { JobContext, WhyContext, useJob, useWay } from "../job/JobContext";
import { holdJob, letGo } from "../job/heldJobs";
import type { OpenJob } from "../job/openJob";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../api/queries";
import { ExplainContext, type Explainer, Workings } from "../figure/Workings";
import { loadStations } from "../pages";
import { useRevisionsTold } from "../proposal/useRevisionsTold";
import { Left } from "./Left";
import { JobHeading } from "./JobHeading";
import { Keys } from "./Keys";
import { Mishap } from "./Mishap";
import { Tally } from "./Tally";
import { Tape, stations } from "./Tape";
import { workings } from "../api/jobQueries";

/** The frame of a job: head, tape, station, tally. */
export function JobFrame() {
  const { id } = useParams();
  const [open, setOpen] = useState<OpenJob | null>(null);
  const [wrong, setWrong] = useState("");
  useEffect(loadStations, []);
  useEffect(() => {
    let current = true;
    holdJob(id!).then(
      (job) => current && setOpen(job),
      (error: Error) => current && setWrong(error.message),
    );
    return () => {
      current = false;
      void letGo(id!);
    };
  }, [id]);
  if (wrong)
    return (
      <main className="page">
        <h1>{wrong}</h1>
        <p>
          <Link to="/jobs">Back to all jobs</Link>
        </p>
      </main>
    );
  if (!open) return <main className="page" aria-busy="true" aria-label="Opening the job" />;
  return (
    <JobContext value={open}>
      <Frame />
    </JobContext>
  );
}

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

function Saved() {
  const [, { elsewhere }] = useJob();
  const way = useWay();
  return (
    <span className={way === "stuck" ? "error" : "note"} role="status">
      {way === "stuck"
        ? "Not saved yet: the server does not answer. What you did is kept here and sent when it does."
        : way === "saving"
          ? "Saving…"
          : elsewhere
            ? "Saved · changed in another window too"
            : "Saved"}
    </span>
  );
}

function Frame() {
  const [open, state] = useJob();
  const [why, setWhy] = useState<string | null>(null);
  const [keys, setKeys] = useState(false);
  const [heading, setHeading] = useState(false);
  const navigate = useNavigate();
  const told = useRevisionsTold();
  useEffect(() => {
    if (state.happened > 0) void told();
  }, [state.happened, told]);
  const { pathname } = useLocation();
  const { job, trouble, notice } = state;

  const onKey = useCallback(
    (event: KeyboardEvent) => {
      const station = event.altKey ? stations["12345".indexOf(event.key)] : undefined;
      if (station) void navigate(`/jobs/${job.id}/${station.path}`);
      else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !typing(event.target))
        void (event.shiftKey ? open.redo() : open.undo());
      else if (event.key === "?" && !typing(event.target)) setKeys(true);
      else return;
      event.preventDefault();
    },
    [job.id, navigate, open],
  );
  // Whoever sees the page can press its keys: they are heard before it is painted.
  useLayoutEffect(() => {
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [onKey]);
  const { data: customers } = useQuery(ask.customers);
  const customer = customers?.find((c) => c.id === job.info.customer);
  useEffect(() => {
    document.title = `${job.info.name} — Emendum`;
  }, [job.info.name]);

  const explain: Explainer = {
    key: [job.id, job.version],
    load: (path) => workings.job(job.id, path),
    text: (path) => workings.asText(job.id, path),
    source: (link) => {
      const [kind, id] = link.split("/") as [string, string];
      const place = kind === "places" && job.places.find((p) => p.id === id);
      if (place) return { to: `/jobs/${job.id}/measure?place=${id}`, words: `tape line of ${place.name}` };
      if (kind === "crew") return { to: `/jobs/${job.id}/price?field=${id}`, words: "crew" };
      if (kind === "pricing") return { to: `/jobs/${job.id}/price?field=${id}`, words: "pricing terms" };
      const work = kind === "work" && job.work.find((w) => w.id === id);
      if (work) return { to: `/jobs/${job.id}/work?item=${work.id}`, words: `${work.section}: ${work.name}` };
      if (kind === "sure") return { to: `/jobs/${job.id}/price?view=sure`, words: "How sure" };
      if (kind === "quotes" || kind === "choices")
        return { to: `/jobs/${job.id}/price?view=options`, words: "Options" };
      if (kind === "rhythms" || kind === "round") return { to: `/jobs/${job.id}/price?view=year`, words: "Year" };
      if (kind === "pace") return { to: `/jobs/${job.id}/work`, words: "conditions of the job" };
      return kind === "book" ? { to: `/jobs/${job.id}/book/${id}`, words: "its entry in this job" } : null;
    },
  };

  return (
    <WhyContext value={setWhy}>
      <div className="job">
        <header className="head">
          <h1>
            <button className="name" title="Change the name, customer or date" onClick={() => setHeading(true)}>
              {job.info.name}
            </button>
          </h1>
          <span className="sub">
            {[job.info.subtitle, `no. ${job.info.number}`, customer?.name, job.variant && `variant ${job.variant}`]
              .filter(Boolean)
              .join(" · ")}
          </span>
          <Saved />
          <button className="plain" disabled={!job.undo.undo && !job.undo.leftBehind} onClick={() => void open.undo()}>
            Undo<span className="kbd">Ctrl Z</span>
          </button>
          <button className="plain" disabled={!job.undo.redo} onClick={() => void open.redo()}>
            Redo
          </button>
          <a className="plain" href={`/api/jobs/${job.id}/file`} download={`job-${job.info.number}.json`}>
            Job file
          </a>
          <button className="plain" onClick={() => setKeys(true)}>
            Keys<span className="kbd">?</span>
          </button>
        </header>
        <Tape />
        <Left />
        <main className="station" key={pathname}>
          <Mishap>
            <Suspense fallback={<div aria-busy="true" aria-label="Opening the station" />}>
              <Outlet />
            </Suspense>
          </Mishap>
        </main>
        <Tally />
      </div>
      <ExplainContext value={explain}>
        <Workings path={why} onPath={setWhy} />
      </ExplainContext>
      {heading && <JobHeading onClose={() => setHeading(false)} />}
      <Keys open={keys} onClose={() => setKeys(false)} />
      <Snackbar
        open={trouble !== "" || notice !== ""}
        onClose={(_, reason) => reason !== "clickaway" && open.clearTrouble()}
      >
        <Alert severity={trouble ? "error" : "info"} onClose={open.clearTrouble}>
          {trouble || notice}
        </Alert>
      </Snackbar>
    </WhyContext>
  );
}
