import { useState } from "react";
import { Refused, type Schemas } from "../api/client";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";

interface Props {
  title: string;
  draft: Schemas["PaperMessage"];
  /** What goes with it, in words. */
  brings: string;
  onSend: (message: Schemas["Message"]) => Promise<void>;
  onClose: () => void;
}

/** A mail that brings a paper: to whom, and what it says. */
export function MailPaper({ title, draft, brings, onSend, onClose }: Props) {
  const [to, setTo] = useState(draft.to);
  const [subject, setSubject] = useState(draft.subject);
  const [words, setWords] = useState(draft.words);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  return (
    <Ask
      title={title}
      apply="Send it"
      ready={to.trim() !== ""}
      onApply={() => onSend({ to: [{ address: to.trim(), copy: false }], subject, words, way: "mail" })}
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["to", "subject", "words"].includes(field);
      }}
      onClose={onClose}
    >
      <p className="note">
        {draft.from
          ? `From ${draft.from}, with ${brings} as PDF. `
          : "The firm has no e-mail address yet: Office, Messages. "}
        {draft.toServer
          ? "Your mail server takes it."
          : "It stands in the outbox: nothing leaves this machine by itself."}
      </p>
      <Input label="To" focus value={to} wrong={wrong["to"]} onType={setTo} />
      <Input label="Subject" maxLength={200} value={subject} wrong={wrong["subject"]} onType={setSubject} />
      <Input label="Words" rows={7} value={words} wrong={wrong["words"]} onType={setWords} />
    </Ask>
  );
}
