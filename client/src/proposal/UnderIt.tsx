import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Drawn, SignaturePad } from "../controls/SignaturePad";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { useJob } from "../job/JobContext";
import { calledIn } from "./called";
import styles from "./revisions.module.css";
import { useRevisionsTold } from "./useRevisionsTold";

/** What was agreed with the names under it, and a way to add the firm's. */
export function UnderIt({ revision }: { revision: Schemas["RevisionView"] }) {
  const [, { job }] = useJob();
  const [id, setId] = useState("");
  return (
    <div className={styles.under}>
      {revision.signed.map((name, i) => (
        <figure key={i}>
          {name.drawn && <Drawn drawn={name.drawn} label={`${name.name}, drawn`} />}
          <figcaption>
            <b>{name.name}</b>
            {name.for && `, for ${name.for}`}
            <small>{name.at}</small>
          </figcaption>
        </figure>
      ))}
      <p className={styles.acts}>
        <a href={`/api/jobs/${job.id}/revisions/${revision.id}/signed`}>
          {revision.signed.length > 0 ? "The signed PDF" : "The PDF with what was agreed"}
        </a>
        <button type="button" className="act" onClick={() => setId(newId())}>
          Add a name
        </button>
      </p>
      {id && <AddName revision={revision} id={id} onClose={() => setId("")} />}
    </div>
  );
}

function AddName({ revision, id, onClose }: { revision: Schemas["RevisionView"]; id: string; onClose: () => void }) {
  const [, { job }] = useJob();
  const told = useRevisionsTold();
  const [by, setBy] = useState<"firm" | "customer">("firm");
  const [name, setName] = useState("");
  const [drawn, setDrawn] = useState("");
  const [wrong, setWrong] = useState("");
  return (
    <Ask
      title={`Sign ${calledIn(revision)} too`}
      apply="Sign"
      ready={name.trim() !== ""}
      onApply={() =>
        change.signToo(job.id, revision.id, { id, byFirm: by === "firm", name: name.trim(), drawn }).then(told)
      }
      onRefused={(error) => {
        setWrong(error.message);
        return true;
      }}
      onClose={onClose}
    >
      <Radios
        label="For whom"
        value={by}
        options={[
          { value: "firm", words: "For the firm" },
          { value: "customer", words: "For the customer, too" },
        ]}
        onChoose={setBy}
      />
      <Input label="Name in full" focus maxLength={120} value={name} wrong={wrong} onType={setName} />
      <SignaturePad label="The name as it is drawn" drawn={drawn} onDraw={setDrawn} />
      <p className="note">
        Drawn or only typed. It has its own date, and changes nothing in what was agreed; a new signed PDF is made.
      </p>
    </Ask>
  );
}
