import { memo } from "react";
import type { Schemas } from "../api/client";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { typedNumber } from "../controls/typedNumber";
import { useJob } from "../job/JobContext";
import { bases } from "./TermFields";
import styles from "./price.module.css";

type Section = Schemas["SectionView"];
type Own = Schemas["OwnBasis"];

/** The one number that a basis of a section has, and what it is called. */
const numbers = {
  fixed: ["fixedPrice", "Fixed price"],
  targetMargin: ["targetMargin", "Margin, %"],
  sellRate: ["sellRate", "Charge rate"],
  markup: ["profit", "Profit markup, %"],
  unitPrice: null,
} as const;

/** Sections that are priced in their own way, and their least charges. */
export const SectionTerms = memo(function SectionTerms() {
  const [open, { job }] = useJob();
  const used = job.sections.filter((s) => job.work.some((w) => w.sectionId === s.id));
  const set = (section: Section, field: "pricing" | "least", now: unknown) =>
    open.send({ type: "setSection", section: section.id, field, was: section[field] ?? null, now } as never);
  return (
    <section className={`panel ${styles.sections}`} aria-label="Sections">
      <header>
        <h2>Sections</h2>
        <span className="note">a basis and a least charge of their own</span>
      </header>
      {used.length === 0 && <p className="pad note">A section stands here when there is work under it.</p>}
      <ul className={styles.sectionList}>
        {used.length > 0 && (
          <li aria-hidden="true" className="note">
            <span>Section</span>
            <span>Priced by</span>
            <span>At</span>
            <span>Least charge</span>
          </li>
        )}
        {used.map((section) => {
          const own = section.pricing;
          const name = section.name || "no section";
          const typed = own && numbers[own.basis];
          return (
            <li key={section.id}>
              <b>{name}</b>
              <Choice
                label={`${name} is priced by`}
                bare
                value={own?.basis ?? ""}
                none="as the job"
                options={bases}
                onChoose={(basis) =>
                  void set(
                    section,
                    "pricing",
                    (basis as string) === ""
                      ? null
                      : { basis, ...(basis === "fixed" ? { fixedPrice: own?.fixedPrice ?? "0" } : {}) },
                  ).catch((error: Error) => open.say(error.message))
                }
              />
              {typed ? (
                <Field
                  key={typed[0]}
                  label={`${typed[1]}, ${name}`}
                  bare
                  value={own[typed[0]] ?? ""}
                  onKeep={(text) =>
                    set(section, "pricing", {
                      ...own,
                      [typed[0]]: text.trim() === "" ? null : typedNumber(text),
                    } satisfies Own)
                  }
                />
              ) : (
                <span />
              )}
              <Field
                label={`Least charge, ${name}`}
                bare
                value={section.least ?? ""}
                onKeep={(text) => set(section, "least", text.trim() === "" ? null : typedNumber(text))}
              />
            </li>
          );
        })}
      </ul>
    </section>
  );
});
