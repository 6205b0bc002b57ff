import { useId, useState } from "react";
import { SignaturePad } from "../src/controls/SignaturePad";
import type { Schemas } from "../src/api/client";
import styles from "./customer.module.css";
import type { Link, Now, Page } from "./link";

interface Props {
  page: Page;
  link: Link;
  onPage: (now: Now) => void;
}

function Row({ row, as }: { row: Schemas["StatementRow"]; as?: "sum" | "beside" }) {
  return (
    <tr className={as && styles[as]}>
      <th scope="row">
        {row.label}
        {row.detail && <small>{row.detail}</small>}
      </th>
      <td>{row.amount}</td>
    </tr>
  );
}

/** What is signed, row by row. */
export function StatementRows({ statement }: { statement: Schemas["Statement"] }) {
  const total = { label: "You pay in all", detail: statement.currency, amount: statement.total };
  return (
    <table className={styles.statement}>
      <tbody>
        {statement.price.map((row, i) => (
          <Row key={i} row={row} />
        ))}
        <Row row={total} as="sum" />
        {statement.steps.map((row, i) => (
          <Row key={`step ${i}`} as="beside" row={{ ...row, label: `of it, ${row.label}` }} />
        ))}
        {statement.offered.map((row, i) => (
          <Row key={`offer ${i}`} as="beside" row={{ ...row, label: `offered: ${row.label}` }} />
        ))}
      </tbody>
    </table>
  );
}

/** Says exactly what is signed, and takes the name. */
export function Sign({ page, link, onPage }: Props) {
  const { statement } = page;
  const [way, setWay] = useState<"draw" | "type">("draw");
  const [drawn, setDrawn] = useState("");
  const [name, setName] = useState(() => (page.for.includes("@") ? "" : page.for));
  const [declares, setDeclares] = useState(false);
  const [id] = useState(() => crypto.randomUUID());
  const [going, setGoing] = useState(false);
  const [wrong, setWrong] = useState("");
  const field = useId();
  const sign = async () => {
    if (name.trim() === "") return setWrong("Write your name in full.");
    if (way === "draw" && drawn === "") return setWrong("Draw your name above the line, or type it.");
    if (!declares) return setWrong("Say that you may sign, and have read it.");
    setGoing(true);
    setWrong("");
    try {
      const signed = await link.accept({
        id,
        revision: page.revision,
        selection: statement.selection,
        total: statement.total,
        name: name.trim(),
        drawn: way === "draw" ? drawn : "",
        declares,
      });
      location.hash = "";
      onPage(signed);
    } catch (error) {
      setWrong((error as Error).message);
      // It may stand otherwise by now: what is shown is what is there.
      void link.load().then(onPage, () => undefined);
    }
    setGoing(false);
  };
  return (
    <main className={styles.signing}>
      <a href="#">Back to the {page.statement.isChange ? "change" : "proposal"}</a>
      <h1>Accept and sign</h1>
      <p className={styles.what}>
        {statement.title} · {statement.reference}
      </p>
      <StatementRows statement={statement} />
      <p className={styles.sentence}>{statement.sentence}</p>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (!going) void sign();
        }}
      >
        <fieldset className={styles.ways}>
          <legend>How you sign</legend>
          {(["draw", "type"] as const).map((one) => (
            <label key={one} className={way === one ? styles.chosen : undefined}>
              <input type="radio" name="way" checked={way === one} onChange={() => setWay(one)} />
              {one === "draw" ? "Draw your name" : "Type it"}
            </label>
          ))}
        </fieldset>
        {way === "draw" && <SignaturePad label="Your name as you draw it" drawn={drawn} onDraw={setDrawn} />}
        <label className={styles.name} htmlFor={field}>
          Name in full
        </label>
        <input
          id={field}
          className={way === "type" ? styles.typed : undefined}
          autoComplete="name"
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <label className={styles.declares}>
          <input type="checkbox" checked={declares} onChange={(e) => setDeclares(e.target.checked)} />
          <span>{statement.declares}</span>
        </label>
        {wrong && (
          <p className={styles.wrong} role="alert">
            {wrong}
          </p>
        )}
        <button type="submit" className={styles.act} disabled={going || !page.open}>
          {going ? "Signing…" : `Sign for ${statement.total}`}
        </button>
      </form>
      <p className={styles.note}>
        Kept word for word with the time and your name. The signed PDF stands on your page from then on, with the
        fingerprint of what you sign: <span className={styles.hash}>{page.statementHash}</span>
      </p>
    </main>
  );
}
