import { Input } from "../controls/Input";
import type { Mail } from "./useMail";
import styles from "./revisions.module.css";

/** To whose telephones a text message goes and what it says. */
export function TextFields({ text }: { text: Mail }) {
  const { draft, people, setPeople, refused } = text;
  const wrong = (field: string) => (refused?.field === field ? refused.message : undefined);
  return (
    <div className={styles.mail}>
      {people.map((recipient, at) => (
        <div key={at} className={styles.recipient}>
          <Input
            label={at === 0 ? "Telephone" : `Telephone ${at + 1}`}
            maxLength={40}
            focus={at > 0}
            value={recipient.address}
            wrong={at === 0 ? wrong("to") : undefined}
            onType={(address) => setPeople(people.map((r, i) => (i === at ? { ...r, address } : r)))}
          />
          {people.length > 1 && (
            <button
              type="button"
              className="act"
              aria-label={`Take telephone ${at + 1} away`}
              onClick={() => setPeople(people.filter((_, i) => i !== at))}
            >
              Take away
            </button>
          )}
        </div>
      ))}
      <p>
        <button
          type="button"
          className="act"
          disabled={people.length >= 20}
          onClick={() => setPeople([...people, { address: "", copy: false }])}
        >
          One more
        </button>
      </p>
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
