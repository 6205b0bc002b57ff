import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, type Refused, type Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { useJob } from "../job/JobContext";
import { MailFields } from "./MailFields";
import { TextFields } from "./TextFields";
import { useMail } from "./useMail";
import styles from "./revisions.module.css";
import { useRevisionsTold } from "./useRevisionsTold";

/** Where the customer signs a revision at the firm's own screen. */
export const signHere = (job: string, revision: string) => `/outside/index.html?job=${job}&revision=${revision}&tablet`;

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
          The same{" "}
          <span>
            {compared.same} {compared.same === 1 ? "line" : "lines"}, to the cent and the word
          </span>
        </li>
      </ul>
    </section>
  );
}

/** Sends the job as it stands as the next revision. */
export function SendPanel({ revisions }: { revisions: Schemas["RevisionsView"] }) {
  const [asked, setAsked] = useState<{ id: string; fact: string } | null>(null);
  if (revisions.scheduled) return <Waits waits={revisions.scheduled} />;
  if (revisions.closed !== "")
    return (
      <section className="panel" aria-label="Send">
        <div className="pad">
          {revisions.dropped && (
            <p className="error" role="status">
              {revisions.dropped}
            </p>
          )}
          <p className="note">{revisions.closed}</p>
        </div>
      </section>
    );
  return (
    <section className="panel" aria-label="Send">
      <div className="pad">
        {revisions.dropped && (
          <p className="error" role="status">
            {revisions.dropped}
          </p>
        )}
        <Button variant="contained" onClick={() => setAsked({ id: newId(), fact: newId() })}>
          Send revision {revisions.next}
        </Button>
        <span className="note">
          It is frozen as it stands: its numbers, words and PDF stay for good, whatever the job becomes.
        </span>
      </div>
      {asked && (
        <SendDialog asked={asked} next={revisions.next} further={revisions.further} onClose={() => setAsked(null)} />
      )}
    </section>
  );
}

/** What waits to go out, and a way to stop it. */
function Waits({ waits }: { waits: Schemas["ScheduledView"] }) {
  const [, { job }] = useJob();
  const told = useRevisionsTold();
  const [wrong, setWrong] = useState("");
  return (
    <section className="panel" aria-label="Send">
      <div className="pad">
        <p>
          Revision {waits.letters} goes out by itself on <b>{waits.goes}</b>, as it was frozen. Until then what was sent
          before stays open.
        </p>
        <Button
          variant="outlined"
          onClick={() =>
            change
              .cancelSending(job.id, { id: waits.id })
              .then(told)
              .catch((error: Error) => setWrong(error.message))
          }
        >
          Cancel it
        </Button>
        <span className="note">Its letter is free again then.</span>
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </div>
    </section>
  );
}

function SendDialog(props: {
  asked: { id: string; fact: string };
  next: string;
  further: readonly Schemas["FurtherJob"][];
  onClose: () => void;
}) {
  const [, { job }] = useJob();
  const { data: view } = useQuery(askJob.proposal(job));
  const told = useRevisionsTold();
  const [way, setWay] = useState<"mail" | "text" | "hand" | "here" | null>(null);
  const [how, setHow] = useState("handed over");
  const [despite, setDespite] = useState("");
  const [later, setLater] = useState(false);
  const [day, setDay] = useState("");
  const [time, setTime] = useState("8:00");
  const [wrong, setWrong] = useState<Refused | null>(null);
  const goes = later && /^\d{4}-\d\d-\d\d$/.test(day) ? day : "";
  const mail = useMail(null, "mail", goes);
  const text = useMail(null, "text", goes, way === "text");
  const holes = view?.unfinished ?? [];
  // Where both addresses are known it goes by mail unless somebody says otherwise.
  const by = way ?? (mail.draft && mail.draft.to !== "" && mail.draft.from !== "" ? "mail" : "hand");
  // What goes by itself, now or at its time.
  const message = by === "mail" ? mail : by === "text" ? text : null;
  const send = () =>
    change.sendRevision(job.id, {
      ...props.asked,
      base: job.version,
      how: message ? "" : by === "here" ? "in person" : how.trim(),
      message: message?.message ?? null,
      despite: despite.trim(),
      day: message && later ? day : "",
      time: message && later ? time : "",
      further: props.further.map((f) => ({ job: f.id, version: f.version })),
    });
  const wrongAt = (field: string) => (wrong?.field === field ? wrong.message : undefined);
  return (
    <Ask
      title={`Send revision ${props.next}`}
      apply={
        message
          ? later
            ? "Set it to go out"
            : by === "text"
              ? "Send the text message"
              : "Send the mail"
          : by === "here"
            ? "Open it to be signed"
            : "It is sent"
      }
      width="sm"
      ready={
        !mail.waits &&
        (message ? message.ready : by === "here" || how.trim() !== "") &&
        (holes.length === 0 || despite.trim() !== "")
      }
      onApply={async () => {
        await send().then(told);
        if (by === "here") location.assign(signHere(job.id, props.asked.id));
      }}
      onRefused={(error) => {
        setWrong(error as Refused);
        // One of them has changed meanwhile: it is shown as it stands now, and can be sent then.
        if ((error as Refused).field === "further") void told();
        return (
          message !== null && (message.refuse(error) || (later && ["day", "time"].includes((error as Refused).field)))
        );
      }}
      onClose={props.onClose}
    >
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
      {props.further.length > 0 && (
        <>
          <p>Goes out with it, accepted by the same signature:</p>
          <ul>
            {props.further.map((f) => (
              <li key={f.id}>
                {f.name} <span className="note">{f.total} with tax</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <Radios
        label="How it goes out"
        value={by}
        options={[
          { value: "mail", words: "By mail", small: "with the PDF and what is attached" },
          { value: "text", words: "By text message", small: "a few words and a link, to a telephone" },
          {
            value: "hand",
            words: "By hand",
            small: "the PDF is made and kept here; you give it to the customer yourself",
          },
          {
            value: "here",
            words: "In person, at this screen",
            small: "it opens as the customer's page: hand it over to be read and signed",
          },
        ]}
        onChoose={setWay}
      />
      {mail.waits || by === "here" ? null : message ? (
        <>
          {by === "text" ? (
            <TextFields text={text} />
          ) : (
            <MailFields mail={mail} attached={`its PDF, revision ${props.next}`} />
          )}
          <Radios
            label="When"
            value={later ? "later" : "now"}
            options={[
              { value: "now", words: "Now" },
              {
                value: "later",
                words: "Later",
                small:
                  "frozen now; its date is that of the day on which it goes, and what was sent before stays open until then",
              },
            ]}
            onChoose={(when) => setLater(when === "later")}
          />
          {later && (
            <div className={styles.when}>
              <Input label="Day" placeholder="2027-01-31" focus value={day} wrong={wrongAt("day")} onType={setDay} />
              <Input label="Time, by the firm's clock" value={time} wrong={wrongAt("time")} onType={setTime} />
              {message.written && <p className="note">What you wrote stays as it is: look at the days that it says.</p>}
            </div>
          )}
        </>
      ) : (
        <Input label="How you give it" value={how} onType={setHow} />
      )}
      <p className="note">
        Its state reads <b>sent</b> from now on, and what happens to it afterwards is recorded with it.
      </p>
    </Ask>
  );
}
