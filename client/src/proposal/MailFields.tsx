import { Link } from "react-router";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { Recipients } from "./Recipients";
import type { Mail } from "./useMail";
import styles from "./revisions.module.css";

/** To whom a mail goes and what it says; `attached` is what goes with it. */
export function MailFields(props: { mail: Mail; attached: string; focus?: boolean }) {
  const { mail, attached } = props;
  const { draft, refused } = mail;
  const wrong = (field: string) => (refused?.field === field ? refused.message : undefined);
  return (
    <div className={styles.mail}>
      {draft?.from === "" ? (
        <p className="error" role="alert">
          The firm has no e-mail address yet. <Link to="/office">Say which in the Office</Link>, under Messages.
        </p>
      ) : (
        <p className="note">from {draft?.from}</p>
      )}
      <Recipients
        mail={mail}
        label="Address"
        placeholder="name@example.com"
        maxLength={254}
        focus={props.focus}
        copies
      />
      {draft && (
        <Choice
          label="Message"
          value={draft.text}
          options={draft.texts.map((t) => [t.id, t.name] as const)}
          hint="another takes the place of what is written below"
          onChoose={mail.choose}
        />
      )}
      {mail.trouble && <p className="note">{mail.trouble}</p>}
      <Input label="Subject" maxLength={200} value={mail.subject} wrong={wrong("subject")} onType={mail.setSubject} />
      <Input
        label="Words"
        rows={9}
        value={mail.words}
        wrong={wrong("words")}
        hint={
          draft && draft.missing.length > 0
            ? `Comes to nothing in this job: ${draft.missing.map((m) => `{${m}}`).join(", ")}`
            : undefined
        }
        onType={mail.setWords}
      />
      <p className="note">
        With it goes <b>{attached}</b>
        {draft?.withLink
          ? ", and to each a link of their own to the customer's page: where the words say {link}, or under them. A copy reads and asks; the others can decline too."
          : "."}{" "}
        {draft?.toServer
          ? "The firm’s mail server takes it; until it has, it stands in the outbox in the Office."
          : "There is no mail server yet: in its place an outbox in the Office shows what would go, each mail with a file for a mail program. Nothing leaves this machine by itself."}
      </p>
    </div>
  );
}
