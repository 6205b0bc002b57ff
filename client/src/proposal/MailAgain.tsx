import { useState } from "react";
import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Radios } from "../controls/Radios";
import { useJob } from "../job/JobContext";
import { calledIn } from "./called";
import { MailFields } from "./MailFields";
import { TextFields } from "./TextFields";
import { useMail } from "./useMail";
import { useRevisionsTold } from "./useRevisionsTold";

/** Sends a revision that went out before once more, by mail or to a telephone; `fact` is the id that it is recorded under. */
export function MailAgain(props: { revision: Schemas["RevisionView"]; fact: string; onClose: () => void }) {
  const [, { job }] = useJob();
  const told = useRevisionsTold();
  const { revision, fact } = props;
  const [byText, setByText] = useState(false);
  const mail = useMail(revision.id);
  const text = useMail(revision.id, "text", "", byText);
  const message = byText ? text : mail;
  return (
    <Ask
      title={`Send ${calledIn(revision)} again`}
      apply={byText ? "Send the text message" : "Send the mail"}
      ready={message.ready}
      onApply={() => change.mailAgain(job.id, revision.id, { fact, message: message.message }).then(told)}
      onRefused={message.refuse}
      onClose={props.onClose}
    >
      <Radios
        label="How it goes out"
        value={byText ? "text" : "mail"}
        options={[
          { value: "mail", words: "By mail" },
          { value: "text", words: "By text message" },
        ]}
        onChoose={(way) => setByText(way === "text")}
      />
      {byText ? (
        <TextFields text={text} />
      ) : (
        <MailFields mail={mail} focus attached={`the PDF of ${calledIn(revision)}, as it was`} />
      )}
    </Ask>
  );
}
