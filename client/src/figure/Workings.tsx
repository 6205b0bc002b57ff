import { Drawer, IconButton, useMediaQuery } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { createContext, useContext, useState } from "react";
import { Link } from "react-router";
import styles from "./workings.module.css";

/** A step of an explanation, as docs/workings-format.md describes it. */
interface Step {
  op: string;
  path?: string;
  label?: string;
  value?: string;
  unit?: string;
  shown?: string;
  text?: string;
  link?: string;
  set?: string;
  of?: Step[];
}

/** An amount and what it is split by. */
interface Split {
  total: Step;
  weights: Step[];
}

/** A sum that is drawn many times over. */
interface DrawnSum {
  fixed: Step;
  varying: { least: Step; most: Step }[];
  shared: Step;
  seed: Step;
}

interface Explained {
  label: string;
  value: string;
  shown: string;
  sentence: string;
  how: Step;
}

interface Explanation {
  figure: string;
  figures: Record<string, Explained>;
  sets: Record<string, Split | DrawnSum>;
}

/** Where explanations of the figures on a screen come from, and where the numbers behind them can be changed. */
export interface Explainer {
  key: unknown[];
  load: (path: string) => Promise<unknown>;
  source: (link: string) => { to: string; words: string } | null;
  /** The whole of the workings as plain text, where they can be had so. */
  text?: (path: string) => Promise<string>;
}

export const ExplainContext = createContext<Explainer | null>(null);

/** The drawer that says how a figure came about, down to the tape reading and the Book entry. */
export function Workings({ path, onPath }: { path: string | null; onPath: (path: string | null) => void }) {
  const still = useMediaQuery("(prefers-reduced-motion: reduce)");
  return (
    <Drawer anchor="right" open={path !== null} onClose={() => onPath(null)} transitionDuration={still ? 0 : undefined}>
      <section className={styles.workings} aria-label="Workings">
        <header>
          <h2>Workings</h2>
          {path && <CopyText key={path} path={path} />}
          <IconButton aria-label="Close" onClick={() => onPath(null)} size="small">
            <svg viewBox="0 0 20 20" width="18" height="18" stroke="currentColor" strokeWidth="1.6" aria-hidden="true">
              <path d="M4 4l12 12M16 4L4 16" />
            </svg>
          </IconButton>
        </header>
        {path && <Explain key={path} path={path} close={() => onPath(null)} top />}
      </section>
    </Drawer>
  );
}

/** Puts the workings on the clipboard, for a letter or a colleague. */
function CopyText({ path }: { path: string }) {
  const { text } = useContext(ExplainContext)!;
  const [said, setSaid] = useState("Copy as text");
  if (!text) return null;
  return (
    <button
      className="plain"
      onClick={() =>
        void text(path)
          .then((words) => navigator.clipboard.writeText(words))
          .then(
            () => setSaid("Copied"),
            () => setSaid("Could not be copied"),
          )
      }
    >
      {said}
    </button>
  );
}

function Explain({ path, close, top }: { path: string; close: () => void; top?: boolean }) {
  const explain = useContext(ExplainContext)!;
  const { data, error } = useQuery({
    queryKey: ["workings", ...explain.key, path],
    queryFn: async () => (await explain.load(path)) as Explanation,
  });
  if (error) return <p className="error">{error.message}</p>;
  if (!data) return <p className="note">…</p>;
  const figure = data.figures[data.figure]!;
  return (
    <>
      {top && (
        <>
          <p className={styles.of}>{figure.label}</p>
          <p className={styles.value} title={`exactly ${figure.value}`}>
            {figure.shown}
          </p>
        </>
      )}
      <p className={styles.sentence}>{figure.sentence}</p>
      <ul>
        {parts(figure.how, data).map((step, i) => (
          <Part key={i} step={step} close={close} />
        ))}
      </ul>
    </>
  );
}

/** The numbers a step came from, each once, without the operations between. */
function parts(step: Step, explanation: Explanation): Step[] {
  if (step.op === "figure" || (step.value !== undefined && step.op !== "constant")) return [step];
  const inside = [...(step.of ?? []), ...(step.set ? ofSet(explanation.sets[step.set]!) : [])];
  const all = inside.flatMap((part) => parts(part, explanation));
  const seen = new Set<string>();
  return all.filter((part) => {
    const key = part.path ?? `${part.op}|${part.label}|${part.value}|${part.unit}|${part.link}`;
    return !seen.has(key) && seen.add(key);
  });
}

const ofSet = (set: Split | DrawnSum) =>
  "total" in set
    ? [set.total, ...set.weights]
    : [set.fixed, set.shared, set.seed, ...set.varying.flatMap((v) => [v.least, v.most])];

const sources: Record<string, string> = { typed: "typed", book: "in the Book", terms: "in the job's terms" };

function Part({ step, close }: { step: Step; close: () => void }) {
  const [open, setOpen] = useState(false);
  if (step.op === "figure")
    return (
      <li>
        <button className={styles.step} aria-expanded={open} onClick={() => setOpen(!open)}>
          <span aria-hidden="true">{open ? "▾" : "▸"}</span> {step.label}
          <b title={`exactly ${step.value}`}>{step.shown}</b>
        </button>
        {open && <Explain path={step.path!} close={close} />}
      </li>
    );
  return (
    <li className={styles.leaf}>
      <span>
        {step.label || "number"} <small>{sources[step.op]}</small> <Source link={step.link} close={close} />
      </span>
      <b>{step.text ?? step.shown}</b>
    </li>
  );
}

/** Where a typed number can be changed. */
function Source({ link, close }: { link?: string; close: () => void }) {
  const source = useContext(ExplainContext)!.source(link ?? "");
  return (
    source && (
      <Link to={source.to} onClick={close}>
        {source.words}
      </Link>
    )
  );
}
