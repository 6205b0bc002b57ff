import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { useJob } from "../job/JobContext";
import { useRevisionsTold } from "../proposal/useRevisionsTold";

interface Props {
  data: Schemas["ChangesView"];
  draft: Schemas["ChangeDraft"];
  wanted: Schemas["ChangeWanted"];
  onClose: () => void;
}

const fields = ["title", "words", "until", "how", "to", "subject", "message"];

/** Sends a change order: what it is about, what the firm says, until when it holds, how it goes out. */
export function ChangeDialog({ data, draft, wanted, onClose }: Props) {
  const [, { job }] = useJob();
  const queries = useQueryClient();
  const told = useRevisionsTold();
  const [ids] = useState(() => ({ id: newId(), fact: newId() }));
  const [title, setTitle] = useState("");
  const [words, setWords] = useState("");
  const [until, setUntil] = useState(data.until);
  const [step, setStep] = useState("");
  const [way, setWay] = useState<"mail" | "hand">(draft.message.from === "" ? "hand" : "mail");
  const [how, setHow] = useState("");
  const [to, setTo] = useState(draft.message.to);
  const [subject, setSubject] = useState<string | null>(null);
  const [mail, setMail] = useState(draft.message.words);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const subjectNow = subject ?? draft.message.subject.replace(/: /, title.trim() ? `: ${title.trim()}, ` : ": ");
  const send = async () => {
    const now = await change.sendChange(job.id, {
      ...ids,
      wanted: { ...wanted, title: title.trim(), withStep: step === "" ? null : Number(step) },
      total: draft.total,
      words,
      until,
      how: way === "hand" ? how : "",
      message:
        way === "mail"
          ? { to: [{ address: to.trim(), copy: false }], subject: subjectNow.trim(), words: mail, way: "mail" }
          : null,
    });
    queries.setQueryData(askJob.changes(job).queryKey, now);
    await told();
  };
  return (
    <Ask
      title={`Change order ${data.next}`}
      apply="Send it"
      ready={title.trim() !== "" && (way === "hand" || to.trim() !== "")}
      onApply={send}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return fields.includes(field);
      }}
      onClose={onClose}
    >
      <Input
        label="What it is about"
        placeholder="The porch, too"
        focus
        maxLength={120}
        value={title}
        wrong={wrong["title"]}
        onType={setTitle}
      />
      <Input
        label="What you say about it"
        rows={3}
        maxLength={4000}
        value={words}
        hint="stands on its paper, before what changes"
        onType={setWords}
      />
      <Input
        label="Can be accepted until"
        placeholder="2027-01-31"
        value={until}
        wrong={wrong["until"]}
        hint="empty for no end"
        onType={setUntil}
      />
      {data.steps.length > 0 && (
        <Choice
          label="It is billed"
          value={step}
          none="on its own, or with the last invoice"
          options={data.steps.map((s) => [String(s.number), `with the step: ${s.when}`] as const)}
          onChoose={setStep}
        />
      )}
      <Radios
        label="How it goes out"
        value={way}
        options={[
          { value: "mail", words: "By mail", small: "with the PDF, and a link to its page, where it is signed" },
          { value: "hand", words: "By hand", small: "you give the PDF to the customer, or sign at this screen" },
        ]}
        onChoose={setWay}
      />
      {way === "hand" ? (
        <Input label="How you give it" maxLength={200} value={how} wrong={wrong["how"]} onType={setHow} />
      ) : (
        <>
          <p className="note">
            {draft.message.from === ""
              ? "The firm has no e-mail address yet: Office, Messages."
              : `From ${draft.message.from}. ${
                  draft.message.toServer
                    ? "Your mail server takes it."
                    : "It stands in the outbox: nothing leaves this machine by itself."
                }`}
          </p>
          <Input label="To" value={to} wrong={wrong["to"]} onType={setTo} />
          <Input label="Subject" maxLength={200} value={subjectNow} wrong={wrong["subject"]} onType={setSubject} />
          <Input label="Words of the mail" rows={6} value={mail} wrong={wrong["words"]} onType={setMail} />
        </>
      )}
      <p className="note">
        It comes to <b>{draft.total}</b> with tax. When it is accepted it is in the contract sum, the work order, what
        is to buy and what can be billed.
      </p>
    </Ask>
  );
}
