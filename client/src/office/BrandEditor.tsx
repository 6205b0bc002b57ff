import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { FileAct } from "../controls/FileAct";
import { Radios } from "../controls/Radios";
import { useTold } from "../controls/useTold";
import { Paper } from "../proposal/Paper";
import styles from "./office.module.css";

type Brand = Schemas["Brand"];

/** How the firm's paper looks, with a sheet of it beside. */
export function BrandEditor({ company }: { company: Schemas["Company"] }) {
  const queries = useQueryClient();
  const { data: brand } = useQuery(ask.brand);
  const { data: languages } = useQuery(ask.languages);
  const [wrong, told] = useTold();
  if (!brand || !languages) return null;
  async function set(part: Partial<Brand>) {
    try {
      await change.brand({ was: brand!, now: { ...brand!, ...part } });
    } finally {
      await queries.invalidateQueries(ask.brand);
    }
  }
  const writes = languages.find((l) => l.name === brand.language)!;
  return (
    <section className={`panel ${styles.wide}`} aria-label="Paper">
      <header>
        <h2>Paper</h2>
        <span className="note">how proposals look; what was sent stays as it was</span>
      </header>
      <div className={styles.brand}>
        <div className="pad">
          <Radios
            label="Look"
            value={brand.look}
            options={[
              { value: "tape", words: "Tape", small: "a ticked rule along the head" },
              { value: "margin", words: "Margin", small: "a band at the left, headings beside it" },
              { value: "rules", words: "Rules", small: "the name between two rules" },
            ]}
            onChoose={(look) => told(set({ look }))}
          />
          <div className="two">
            <Field label="Colour" hint="like #0e5a63" value={brand.colour} onKeep={(c) => set({ colour: c.trim() })} />
            <Choice
              label="Paper size"
              value={brand.paper}
              options={[
                ["letter", "Letter, 8½ × 11 in"],
                ["a4", "A4, 210 × 297 mm"],
              ]}
              onChoose={(paper) => told(set({ paper }))}
            />
          </div>
          {brand.colourOfWords !== brand.colour && (
            <p className="note">
              Words in it are darkened to{" "}
              <b style={{ color: brand.colourOfWords, background: "#fff" }}>{brand.colourOfWords}</b>, so that they can
              be read on white.
            </p>
          )}
          <Choice
            label="Dates and numbers"
            value={brand.language}
            options={languages.map((l) => [l.name, `${l.words}: ${l.day}, ${l.number}`] as const)}
            onChoose={(language) => told(set({ language }))}
          />
          <Field label="Slogan" value={brand.slogan} onKeep={(slogan) => set({ slogan: slogan.trim() })} />
          <Field
            label="Under the address"
            rows={3}
            hint="telephone, registration, one a line"
            value={brand.head}
            onKeep={(head) => set({ head: head.trim() })}
          />
          <Field label="Foot of each page" value={brand.foot} onKeep={(foot) => set({ foot: foot.trim() })} />
          <p>
            <FileAct
              words={brand.mark ? "Another mark" : "Choose a mark"}
              label="Picture of the mark"
              accept="image/png,image/jpeg,image/webp"
              onFiles={([file]) => told(change.keepFile(file!).then((kept) => set({ mark: kept.hash })))}
            />{" "}
            {brand.mark && (
              <button type="button" className="act" onClick={() => told(set({ mark: "" }))}>
                Remove the mark
              </button>
            )}
          </p>
          {wrong && (
            <p className="error" role="alert">
              {wrong}
            </p>
          )}
        </div>
        <div className={styles.sample} aria-hidden="true">
          <Paper brand={brand} document={sample(company, brand, writes)} />
        </div>
      </div>
    </section>
  );
}

/** A sheet with a little of everything. Its words are fixed; days and numbers are as the core writes them. */
function sample(company: Schemas["Company"], brand: Brand, writes: Schemas["LanguageView"]): Schemas["Document"] {
  const block = (
    kind: Schemas["BlockKind"],
    title: string,
    words: Schemas["Element"][],
    made: Schemas["Element"][],
  ) => ({
    id: kind,
    kind,
    title,
    isTitled: title !== "",
    hidden: false,
    newPage: false,
    wordsOf: "nobody" as const,
    words,
    made,
    missing: [],
    wordsAfter: false,
    hasSomething: true,
    isRead: true,
  });
  const said = (text: string): Schemas["Element"] => ({
    type: "paragraph",
    spans: [{ text, stress: "plain", name: null, figure: null }],
  });
  const row = (kind: Schemas["RowKind"], label: string): Schemas["PriceRow"] => ({
    kind,
    label,
    detail: "",
    amount: null,
    figure: null,
    shown: writes.number,
    quantity: "",
    unitPrice: "",
    hours: "",
    number: "",
    of: null,
  });
  return {
    head: {
      firm: company.name,
      firmAddress: company.address,
      slogan: brand.slogan,
      customer: "A customer",
      customerAddress: "in a street",
      title: "A sample sheet",
      subtitle: "and what it is about",
      reference: `Proposal · ${writes.day}`,
      validity: `Prices hold until ${writes.day}`,
    },
    blocks: [
      block(
        "letter",
        "",
        [said("Words stand like this, in paragraphs of a few lines each, with room about them.")],
        [],
      ),
      block(
        "price",
        "Price",
        [],
        [{ type: "priceTable", currency: company.currency, rows: [row("part", "Some work"), row("total", "Total")] }],
      ),
    ],
  };
}
