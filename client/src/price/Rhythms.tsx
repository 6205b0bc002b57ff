import { useState } from "react";
import { type Schemas, newId } from "../api/client";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { typedNumber } from "../controls/typedNumber";
import { wholeOr } from "../controls/wholeOr";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { once } from "../job/once";
import { Months } from "./Months";
import { Rows } from "./Rows";
import { visitOf, visits, withVisit } from "./rhythmWords";
import price from "./price.module.css";
import styles from "./year.module.css";

type View = Schemas["YearView"];
type Rhythm = Schemas["Rhythm"];

/** The rhythms of the job, and which work goes by which. */
export function Rhythms({ view, onMake }: { view: View; onMake: () => void }) {
  const [, { job }] = useJob();
  if (job.rhythms.length === 0) return null;
  return (
    <>
      <section className="panel" aria-label="Rhythms">
        <header>
          <h2>Rhythms</h2>
          <span className="note">how often work comes back; each is an occurrence with a price of its own</span>
          <button type="button" className="act" onClick={onMake}>
            New rhythm
          </button>
        </header>
        <ul className={styles.list}>
          {job.rhythms.map((rhythm) => (
            <One
              key={rhythm.id}
              rhythm={rhythm}
              usual={view.usual}
              of={view.rhythms.find((r) => r.rhythm.id === rhythm.id)}
            />
          ))}
        </ul>
      </section>
      <WorkByRhythm view={view} />
    </>
  );
}

interface OneProps {
  rhythm: Rhythm;
  usual: View["usual"];
  /** What is made of it; comes a moment later. */
  of?: Schemas["RhythmView"];
}

function One({ rhythm, usual, of }: OneProps) {
  const [open, { job }] = useJob();
  const [wrong, setWrong] = useState("");
  const set = (field: keyof Rhythm, was: unknown, now: unknown) =>
    open.send({ type: "setRhythm", rhythm: rhythm.id, field, was, now } as never);
  const tell = (sent: Promise<unknown>) =>
    void sent.then(
      () => setWrong(""),
      (error: Error) => setWrong(error.message),
    );
  const event = rhythm.kind === "event";
  return (
    <li>
      <Field
        label={`Name of ${rhythm.name}`}
        bare
        value={rhythm.name}
        onKeep={(text) => set("name", rhythm.name, text.trim())}
      />
      {event ? <span className="note">by event</span> : <HowOften rhythm={rhythm} usual={usual} />}
      {event ? (
        <span className="note">when it comes</span>
      ) : (
        <Choice
          label={`When ${rhythm.name} is done`}
          bare
          value={visitOf(rhythm)}
          options={visits(rhythm, job.rhythms, job.round.usual === rhythm.id)}
          onChoose={(to) =>
            tell(
              open.send({
                type: "setVisit",
                rhythm: rhythm.id,
                was: { instead: rhythm.instead ?? null, ownVisit: rhythm.ownVisit },
                now: withVisit(rhythm, to),
              }),
            )
          }
        />
      )}
      <Months
        of={rhythm.name}
        named={rhythm.months}
        none="all year"
        onChoose={(now, was) => {
          const sent = set("months", was, now);
          tell(sent);
          return sent;
        }}
      />
      <span className={styles.left}>
        {of?.times ? (
          <>
            <Figure figure={of.times} label={`${rhythm.name}, times in the year`} /> <small>in the year</small>
          </>
        ) : (
          of?.work === 0 && <small>no work yet</small>
        )}
      </span>
      <button
        type="button"
        className="act"
        aria-label={`Remove ${rhythm.name}`}
        onClick={() => tell(open.send({ type: "removeRhythm", rhythm: rhythm.id }))}
      >
        Remove
      </button>
      {event && <Bands rhythm={rhythm} onSave={(bands) => set("bands", rhythm.bands, bands)} />}
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </li>
  );
}

function HowOften({ rhythm, usual }: { rhythm: Rhythm; usual: readonly Schemas["FrequencyName"][] }) {
  const [open] = useJob();
  const was = { kind: rhythm.kind, times: rhythm.times };
  const take = (kind: Schemas["RhythmKind"], times: number) =>
    open.send({ type: "takeFrequency", rhythm: rhythm.id, was, now: { kind, times } });
  if (rhythm.kind === "workingDays")
    return (
      <Choice
        label={`How often ${rhythm.name} comes`}
        bare
        value="workingDays"
        options={usual.map((f) => [f.kind === "workingDays" ? f.kind : String(f.times), f.name] as const)}
        onChoose={(now) => void take(now === "workingDays" ? now : "times", wholeOr(now) as number)}
      />
    );
  return (
    <Field
      label={`How often ${rhythm.name} comes`}
      bare
      unit="a year"
      value={String(rhythm.times)}
      onKeep={(text) => take("times", wholeOr(text) as number)}
    />
  );
}

type Band = Schemas["EventBand"];

function Bands({ rhythm, onSave }: { rhythm: Rhythm; onSave: (bands: Band[]) => Promise<void> }) {
  return (
    <div className={styles.bands}>
      <p className="note">How far it goes · hours × · expected in a season · billed at the most (empty: every time)</p>
      <Rows
        one="band"
        rows={rhythm.bands}
        columns={[
          { label: "How far it goes", wide: true, text: (b) => b.name, with: (b, name) => ({ ...b, name }) },
          {
            label: "Hours",
            unit: "×",
            text: (b) => b.factor,
            with: (b, factor) => ({ ...b, factor: typedNumber(factor) }),
          },
          {
            label: "Expected",
            text: (b) => String(b.expected),
            with: (b, text) => ({ ...b, expected: wholeOr(text) as number }),
          },
          {
            label: "At the most",
            text: (b) => (b.cap == null ? "" : String(b.cap)),
            with: (b, text) => ({ ...b, cap: text === "" ? null : (wholeOr(text) as number) }),
          },
        ]}
        blank={{ id: newId(), name: "", factor: "1", expected: 0, cap: null } as Band}
        onSave={onSave}
      />
    </div>
  );
}

function WorkByRhythm({ view }: { view: View }) {
  const [open, { job }] = useJob();
  const { rhythms, round } = job;
  const usual = rhythms.find((r) => r.id === round.usual)?.name ?? "once";
  return (
    <section className="panel" aria-label="Work and its rhythm">
      <header>
        <h2>Work and its rhythm</h2>
      </header>
      <div className="pad">
        <Choice
          label="Work that says nothing else"
          row
          value={round.usual ?? ""}
          none="is done once"
          options={rhythms.map((r) => [r.id, r.name] as const)}
          onChoose={(now) =>
            void open.tell({
              type: "setRound",
              field: "usual",
              was: round.usual ?? null,
              now: now || null,
            } as never)
          }
        />
      </div>
      <ul className={`rows ${price.list} ${styles.work}`}>
        {job.work.map((work) => (
          <li key={work.id}>
            <Choice
              label={`Rhythm of ${work.section}: ${work.name}`}
              bare
              value={work.rhythm ?? ""}
              none={`as the job says: ${usual}`}
              options={[...rhythms.map((r) => [r.id, r.name] as const), [once, "once"]]}
              onChoose={(now) =>
                void open.tell({
                  type: "setWork",
                  work: work.id,
                  field: "rhythm",
                  was: work.rhythm ?? null,
                  now: now || null,
                } as never)
              }
            />
            <span>
              {work.section}: {work.name}
              <BuildUpOf words={view.work.find((w) => w.id === work.id)?.buildUp} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function BuildUpOf({ words }: { words?: string }) {
  return words ? <small>build-up of dirt {words}</small> : null;
}
