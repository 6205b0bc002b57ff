import { Input } from "../controls/Input";
import { Recipients } from "./Recipients";
import type { Mail } from "./useMail";
import styles from "./revisions.module.css";

/** To whose telephones a text message goes and what it says. */
export function TextFields({ text }: { text: Mail }) {
  const { draft, refused } = text;
  const wrong = (field: string) => (refused?.field === field ? refused.message : undefined);
  return (
    <div className={styles.mail}>
      <Recipients mail={text} label="Telephone" maxLength={40} />
      {text.trouble && <p className="note">{text.trouble}</p>}
      <Input
        label="Words"
        rows={4}
        value={text.words}
        wrong={wrong("words")}
        hint={
          draft && draft.missing.length > 0
            ? `Comes to nothing here: ${draft.missing.map((m) => `{${m}}`).join(", ")}`
            : "at most 400 characters; each gets a link of their own where they say {link}, or under them"
        }
        onType={text.setWords}
      />
      <p className="note">
        Nobody carries text messages from here yet: in their place an outbox in the Office shows what would go. Nothing
        leaves this machine by itself.
      </p>
    </div>
  );
}
