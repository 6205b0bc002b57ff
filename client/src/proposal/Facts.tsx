import { useState } from "react";
import { Link } from "react-router";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { FileAct } from "../controls/FileAct";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { useJob } from "../job/JobContext";
import { called, calledIn, shortly } from "./called";
import { Chosen } from "./Chosen";
import styles from "./revisions.module.css";
import { UnderIt } from "./UnderIt";
import { MailAgain } from "./MailAgain";
import { signHere } from "./SendPanel";
import { useRevisionsTold } from "./useRevisionsTold";

type Kind = Schemas["FactKind"];

/** What the firm records: the words of its button, what it asks for, and what it does. */
const acts: Partial<Record<Kind, { words: string; does: string; reason?: string; day?: string }>> = {
  sentAgain: { words: "Handed over again", does: "The same revision went out once more.", reason: "How it went out" },
  yesRecorded: {
    words: "Record a yes",
    does: "A yes on paper or by word makes the contract, at the total of what it was said to.",
    reason: "How it came",
    day: "Date that the yes bears",
  },
  noRecorded: { words: "Record a no", does: "The offer ends; it can be opened again.", reason: "Why, if they said" },
  putOnHold: {
    words: "Put on hold",
    does: "A note of your own: the customer does not read it, and the prices hold as long as before.",
    reason: "Why",
  },
  takenOffHold: { words: "Take off hold", does: "It stands as it did before.", reason: "Why" },
  extended: { words: "Let it hold longer", does: "The document keeps the day that is printed in it.", day: "Until" },
  reopened: {
    words: "Open it again",
    does: "After a no. Where its last day is past it needs a new one.",
    reason: "Why",
    day: "Prices hold until, if that changes",
  },
  withdrawn: {
    words: "Withdraw",
    does: "The customer can accept it no more. No earlier revision comes back by that.",
    reason: "Why",
  },
  annulled: {
    words: "Annul the yes",
    does: "For a yes that was recorded by mistake: it stays in the history, and counts no more.",
    reason: "Why",
  },
};

/** A revision: how it stands, what happened, and what can be recorded. */
export function Facts(props: {
  revision: Schemas["RevisionView"];
  chosen: boolean;
  reading: boolean;
  onShow?: () => void;
}) {
  const { revision } = props;
  const [, { job }] = useJob();
  const told = useRevisionsTold();
  const [kind, setKind] = useState<Kind | null>(null);
  const [words, setWords] = useState("");
  const [day, setDay] = useState("");
  const [id, setId] = useState("");
  const [of, setOf] = useState<"sent" | "chosen">("sent");
  const [photo, setPhoto] = useState({ name: "", hash: "" });
  const [wrong, setWrong] = useState("");
  const [mailing, setMailing] = useState("");
  const act = kind && acts[kind];
  return (
    <article className={props.chosen ? styles.on : ""} aria-label={`${called(revision)}, ${revision.stateWords}`}>
      <h3>
        <b>{shortly(revision)}</b> {revision.stateWords} <span>{revision.beforeTax}</span>
      </h3>
      {revision.lead && (
        <p className="note">
          Went out with{" "}
          <Link to={`/jobs/${revision.lead.job}/proposal?view=revisions`}>
            {revision.lead.name}, revision {revision.lead.letters}
          </Link>
          : what happens to that happens to this.
        </p>
      )}
      {revision.further.length > 0 && (
        <p className="note">
          With {revision.further.join("; ")}. The customer pays {revision.all} for all.
        </p>
      )}
      <dl>
        {revision.history.map((fact) => (
          <div key={fact.id}>
            <dt>{fact.did}</dt>
            <dd>
              {fact.at} {fact.words && <small>{fact.words}</small>}
              {fact.photo && (
                <a href={`/api/files/${fact.photo}`} target="_blank" rel="noreferrer">
                  the paper
                </a>
              )}
              {fact.mails.map((mail) => (
                <a key={mail.id} href={`/api/outbox/${mail.id}/file`} download>
                  {fact.mails.length > 1 ? `the mail to ${mail.address}` : "the mail"}
                </a>
              ))}
            </dd>
          </div>
        ))}
        {revision.holdsUntil && (
          <div>
            <dt>holds to</dt>
            <dd>
              {revision.holdsUntil}
              {revision.printedUntil !== revision.holdsUntil && <small> printed: {revision.printedUntil}</small>}
            </dd>
          </div>
        )}
      </dl>
      <p className={styles.acts}>
        {props.onShow && (
          <button type="button" className="act" aria-pressed={props.reading} onClick={props.onShow}>
            {props.reading ? "Back to what differs" : "As it was sent"}
          </button>
        )}
        <a href={`/api/jobs/${job.id}/revisions/${revision.id}/pdf`} download={`${called(revision)}.pdf`}>
          PDF
        </a>
        <a
          href={`/api/jobs/${job.id}/revisions/${revision.id}/pdf?inline=true`}
          target="_blank"
          rel="noreferrer"
          aria-label={`Print ${calledIn(revision)}`}
        >
          Print
        </a>
        {revision.schedule && (
          <a
            href={`/api/jobs/${job.id}/revisions/${revision.id}/schedule.xlsx`}
            download={`Schedule, revision ${revision.letters}.xlsx`}
          >
            Schedule (XLSX)
          </a>
        )}
        {!revision.lead && ["sent", "seen", "onHold"].includes(revision.state) && (
          <a href={signHere(job.id, revision.id)} target="_blank" rel="noreferrer">
            Sign here
          </a>
        )}
        {revision.may.includes("sentAgain") && (
          <button type="button" className="act" onClick={() => setMailing(newId())}>
            Send it again
          </button>
        )}
        {revision.may.map((may) => (
          <button
            key={may}
            type="button"
            className="act"
            onClick={() => {
              setKind(may);
              setWords("");
              setDay("");
              setId(newId());
              setOf(revision.selection > 0 ? "chosen" : "sent");
              setPhoto({ name: "", hash: "" });
              setWrong("");
            }}
          >
            {acts[may]?.words}
          </button>
        ))}
      </p>
      {revision.selection > 0 && <Chosen revision={revision} />}
      {revision.agreed && <UnderIt revision={revision} />}
      {mailing && <MailAgain revision={revision} fact={mailing} onClose={() => setMailing("")} />}
      {act && (
        <Ask
          title={`${act.words}: ${calledIn(revision)}`}
          apply={act.words}
          width="xs"
          onApply={() =>
            change
              .recordFact(job.id, revision.id, {
                id,
                kind,
                words: words.trim(),
                day,
                asSent: of === "sent",
                photo: photo.hash,
              })
              .then(told)
              .then(() => setKind(null))
          }
          onClose={() => setKind(null)}
        >
          <p className="note">{act.does} It stays in the history, and is not undone by Ctrl+Z.</p>
          {act.day && <Input label={act.day} placeholder="2027-01-31" focus value={day} onType={setDay} />}
          {act.reason && <Input label={act.reason} focus={!act.day} value={words} onType={setWords} />}
          {kind === "yesRecorded" && revision.selection > 0 && (
            <Radios
              label="What it was said to"
              value={of}
              options={[
                { value: "chosen", words: "With what was chosen on the page" },
                { value: "sent", words: "As it was sent" },
              ]}
              onChoose={setOf}
            />
          )}
          {kind === "yesRecorded" && (
            <p>
              <FileAct
                words={photo.hash ? "Another photo" : "Photo of the paper"}
                label="Photo or scan of the paper"
                accept="image/png,image/jpeg,image/webp,application/pdf"
                onFiles={([file]) => {
                  setWrong("");
                  change.keepFile(file!).then(
                    (kept) => setPhoto({ name: file!.name, hash: kept.hash }),
                    (error: Error) => setWrong(error.message),
                  );
                }}
              />{" "}
              <span className="note">{photo.name || "a picture or a PDF; it is kept with the yes"}</span>
            </p>
          )}
          {wrong && (
            <p className="error" role="alert">
              {wrong}
            </p>
          )}
        </Ask>
      )}
    </article>
  );
}
