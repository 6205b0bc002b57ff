import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { newId } from "../api/client";
import { ExplainContext, type Explainer, Workings } from "../figure/Workings";
import { Field } from "../controls/Field";
import { WhyContext } from "../job/JobContext";
import { AssemblyForm } from "./AssemblyForm";
import {
  ConditionForm,
  EquipmentForm,
  MaterialForm,
  RoleForm,
  SetUpForm,
  SubcontractForm,
  SurfaceForm,
  TextForm,
} from "./GoodsForms";
import { HistoryDialog } from "./HistoryDialog";
import { TryIt, type Tried, type Trial, useTried, usualTrial } from "./TryIt";
import { PriceOnlyForm, RateForm } from "./WorkForms";
import { TextOf } from "./fields";
import { type Editing, EditingContext, bookChanged, useEditing, useEntry } from "./useEntry";
import styles from "./book.module.css";
import { change } from "../api/changes";
import { useStay } from "../controls/useStay";
import { ask } from "../api/queries";
import { workings } from "../api/jobQueries";

/** An entry of the Book with its trial beside it. */
export function EntryPage({ id }: { id: string }) {
  const { editing, error } = useEntry(id);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const stay = useStay();
  async function back() {
    const still = stay();
    const [newest] = await queries.fetchQuery(ask.versions(id));
    if (!newest) return;
    await change.restoreEntry(id, newest.version);
    await bookChanged(queries);
    if (still()) await navigate(`/book/${id}`);
  }
  if (error)
    return (
      <section className={`panel ${styles.empty}`} aria-label="Entry">
        <h2>{error.message}</h2>
        <p>It may have been deleted. Jobs that use it have their own, and lose nothing.</p>
        <button className="link" onClick={() => void back()}>
          Bring it back
        </button>
      </section>
    );
  if (!editing) return <section className={`panel ${styles.empty}`} aria-busy="true" aria-label="Opening the entry" />;
  return (
    <EditingContext value={editing}>
      <Open editing={editing} />
    </EditingContext>
  );
}

function Open({ editing }: { editing: Editing }) {
  const { view, set } = editing;
  const { entry } = view;
  const [trial, setTrial] = useState<Trial>(usualTrial);
  const [why, setWhy] = useState<string | null>(null);
  const [history, setHistory] = useState(false);
  const [wrong, setWrong] = useState("");
  const tried = useTried(view, trial);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const stay = useStay();
  const explain: Explainer = {
    key: ["try", entry.id, entry.version, trial],
    load: (figure) => workings.trial(entry.id, trial, figure),
    source: (link) => {
      const [kind, id] = link.split("/") as [string, string];
      return kind === "book" && id !== entry.id ? { to: `/book/${id}`, words: "its entry" } : null;
    },
  };
  const levels = "levels" in entry ? entry.levels : [];

  async function copy() {
    const id = newId();
    const still = stay();
    await change.copyEntry(entry.id, id);
    await bookChanged(queries);
    if (still()) await navigate(`/book/${id}`);
  }
  async function remove() {
    try {
      await change.deleteEntry(entry.id);
      queries.removeQueries({ queryKey: ["entry", entry.id] });
      await bookChanged(queries);
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  return (
    <WhyContext value={setWhy}>
      <section className={`panel ${styles.entry}`} aria-label={entry.name}>
        <header>
          <h2>{entry.name}</h2>
          <span className="note">
            {[entry.trade, entry.section].filter(Boolean).join(" · ")}
            {entry.archived && " · archived"}
          </span>
        </header>
        <div className="acts">
          <button className="act" onClick={() => void copy()}>
            Copy
          </button>
          <button className="act" onClick={() => void set("archived", !entry.archived)}>
            {entry.archived ? "Take out of the archive" : "Archive"}
          </button>
          <button className="act" onClick={() => setHistory(true)}>
            Versions
          </button>
          <button className={`act ${styles.warn}`} onClick={() => void remove()}>
            Delete
          </button>
          {wrong && (
            <p className="error" role="alert">
              {wrong}
            </p>
          )}
        </div>
        <div className={styles.form}>
          {view.lacking && (
            <p className={styles.lacking} role="status">
              Before it can be used it {view.lacking}.
            </p>
          )}
          {levels.length > 0 && (
            <div className={styles.levels} role="group" aria-label="Difficulty to try">
              <span className="note">Difficulty</span>
              {levels.map((level) => (
                <button
                  key={level.name}
                  aria-pressed={trial.difficulty === level.name || (trial.difficulty === "" && level.factor === "1")}
                  onClick={() => setTrial({ ...trial, difficulty: level.name })}
                >
                  {level.name} × {level.factor}
                </button>
              ))}
            </div>
          )}
          <KindForm kind={entry.kind} tried={tried.data} />
          <h3>Where it is found</h3>
          <div className="two">
            <TextOf label="Name" path="name" />
            <TextOf label="Section" path="section" />
            <TextOf label="Trade" path="trade" />
            <TextOf label="Order in its section" path="order" whole />
            <TextOf
              label="Where its figures come from"
              path="source"
              hint="a standard, the maker's sheet, your own jobs"
              optional
            />
          </div>
          <Tags />
          <h3>Where it is used</h3>
          <WhereUsed />
        </div>
      </section>
      {view.asks.length > 0 ? (
        <TryIt view={view} trial={trial} onTrial={setTrial} tried={tried} />
      ) : (
        <aside className={`panel ${styles.tryit}`} aria-label="Saved">
          <header>
            <h2>Saved</h2>
          </header>
          <p className={styles.words}>
            Version {entry.version}
            {view.savedAt && `, ${new Date(view.savedAt).toLocaleString()}`}, by {view.person}. Saved by itself; earlier
            versions stay.
          </p>
        </aside>
      )}
      <ExplainContext value={explain}>
        <Workings path={why} onPath={setWhy} />
      </ExplainContext>
      {history && <HistoryDialog id={entry.id} current={entry.version} onClose={() => setHistory(false)} />}
    </WhyContext>
  );
}

/** The form of an entry of that kind. */
export function KindForm({ kind, tried }: { kind: Editing["view"]["entry"]["kind"]; tried: Tried | undefined }) {
  switch (kind) {
    case "rate":
      return <RateForm />;
    case "assembly":
      return <AssemblyForm tried={tried} />;
    case "priceOnly":
      return <PriceOnlyForm />;
    case "material":
      return <MaterialForm />;
    case "role":
      return <RoleForm />;
    case "equipment":
      return <EquipmentForm />;
    case "subcontract":
      return <SubcontractForm />;
    case "condition":
      return <ConditionForm />;
    case "surface":
      return <SurfaceForm />;
    case "setUp":
      return <SetUpForm />;
    case "text":
      return <TextForm />;
  }
}

function Tags() {
  const { view, set } = useEditing();
  const text = view.entry.tags.join(", ");
  return (
    <Field
      label="Tags"
      value={text}
      hint="words to find it by, with commas between"
      onKeep={(typed) =>
        set(
          "tags",
          typed
            .split(",")
            .map((t) => t.trim())
            .filter(Boolean),
        )
      }
    />
  );
}

function WhereUsed() {
  const { view } = useEditing();
  if (view.usedBy.length + view.jobs.length === 0) return <p className="note">Nowhere yet.</p>;
  return (
    <ul className={styles.used} aria-label="Where it is used">
      {view.usedBy.map((e) => (
        <li key={e.id}>
          <Link to={`/book/${e.id}`}>{e.name}</Link> <span className="note">{e.kind}</span>
        </li>
      ))}
      {view.jobs.map((j) => (
        <li key={j.job}>
          <Link to={`/jobs/${j.job}/work`}>{j.name}</Link> <span className="note">job no. {j.number}</span>
        </li>
      ))}
    </ul>
  );
}
