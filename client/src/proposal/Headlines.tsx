import type { Schemas } from "../api/client";
import { Check } from "../controls/Check";
import { Field } from "../controls/Field";
import { useTold } from "../controls/useTold";
import { useJob } from "../job/JobContext";
import styles from "./proposal.module.css";

type Headline = Schemas["Headline"];

/** Sentences that bundle sections under one price. A section is under one of them, or stands by itself. */
export function Headlines() {
  const [open, { job }] = useJob();
  const [wrong, tell] = useTold();
  const all = job.proposal.headlines;
  const save = (now: Headline[]) => open.send({ type: "setProposal", field: "headlines", was: all, now } as never);
  const told = (now: Headline[]) => tell(save(now));
  const put = (at: number, headline: Headline) => all.map((h, i) => (i === at ? headline : h));
  const free = job.sections.filter((s) => all.every((h) => !h.sections.includes(s.id)));
  return (
    <div className={styles.headlines} role="group" aria-label="Headlines">
      {all.map((headline, at) => (
        <div key={at}>
          <Field
            label={`Headline ${at + 1}`}
            rows={2}
            sentence
            value={headline.words}
            onKeep={(words) => save(put(at, { ...headline, words: words.trim() }))}
          />
          {job.sections
            .filter((s) => headline.sections.includes(s.id) || free.includes(s))
            .map((section) => (
              <Check
                key={section.id}
                on={headline.sections.includes(section.id)}
                onTick={(on) =>
                  told(
                    put(at, {
                      ...headline,
                      sections: on
                        ? [...headline.sections, section.id]
                        : headline.sections.filter((s) => s !== section.id),
                    }),
                  )
                }
              >
                {section.name}
              </Check>
            ))}
          <button
            type="button"
            className="act"
            aria-label={`Remove headline ${at + 1}`}
            onClick={() => told(all.filter((_, i) => i !== at))}
          >
            Remove
          </button>
        </div>
      ))}
      <button
        type="button"
        className="act"
        onClick={() => told([...all, { words: `All work of part ${all.length + 1}`, sections: free.map((s) => s.id) }])}
      >
        Add a headline
      </button>
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
