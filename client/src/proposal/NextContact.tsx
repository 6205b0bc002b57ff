import { Field } from "../controls/Field";
import { useJob } from "../job/JobContext";

/** When the firm wants to be in touch with the customer next, and what about: its own note, which no document says. */
export function NextContact() {
  const [open, { job }] = useJob();
  const keep = (field: "nextContact" | "contactAbout") => (text: string) =>
    open.send({
      type: "setInfo",
      field,
      was: job.info[field] ?? null,
      now: text.trim() === "" ? null : text.trim(),
    } as Parameters<typeof open.send>[0]);
  return (
    <section className="panel" aria-label="Next contact">
      <header>
        <h2>Next contact</h2>
        <span className="note">your own note</span>
      </header>
      <div className="pad">
        <Field label="Day" hint="like 2027-01-31" value={job.info.nextContact ?? ""} onKeep={keep("nextContact")} />
        <Field label="What about" value={job.info.contactAbout ?? ""} onKeep={keep("contactAbout")} />
      </div>
    </section>
  );
}
