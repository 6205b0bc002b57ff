import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import styles from "./revisions.module.css";
import type { Mail } from "./useMail";

interface Props {
  mail: Mail;
  /** What each is called. */
  label: string;
  placeholder?: string;
  maxLength: number;
  focus?: boolean;
  /** Whether some may have it as a copy only. */
  copies?: boolean;
}

/** To whom a message goes, one under the other. */
export function Recipients({ mail, label, placeholder, maxLength, focus, copies }: Props) {
  const { people, setPeople, refused } = mail;
  const set = (at: number, part: Partial<(typeof people)[number]>) =>
    setPeople(people.map((r, i) => (i === at ? { ...r, ...part } : r)));
  return (
    <>
      {people.map((recipient, at) => {
        const named = at === 0 ? label : `${label} ${at + 1}`;
        return (
          <div key={at} className={styles.recipient}>
            <Input
              label={named}
              placeholder={placeholder}
              maxLength={maxLength}
              focus={at > 0 || focus}
              value={recipient.address}
              wrong={at === 0 && refused?.field === "to" ? refused.message : undefined}
              onType={(address) => set(at, { address })}
            />
            {copies && (
              <Choice
                label={at === 0 ? "gets it" : `${named} gets it`}
                value={recipient.copy ? "copy" : "to"}
                options={[
                  ["to", "to read and answer"],
                  ["copy", "as a copy"],
                ]}
                onChoose={(as) => set(at, { copy: as === "copy" })}
              />
            )}
            {people.length > 1 && (
              <button
                type="button"
                className="act"
                aria-label={`Take ${named.toLowerCase()} away`}
                onClick={() => setPeople(people.filter((_, i) => i !== at))}
              >
                Take away
              </button>
            )}
          </div>
        );
      })}
      <p>
        <button
          type="button"
          className="act"
          disabled={people.length >= 20}
          onClick={() => setPeople([...people, { address: "", copy: copies ?? false }])}
        >
          One more
        </button>
      </p>
    </>
  );
}
