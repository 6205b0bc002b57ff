import { Button } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { classes } from "../controls/classes";
import { FileAct } from "../controls/FileAct";
import { Input } from "../controls/Input";
import { useTold } from "../controls/useTold";
import styles from "./bank.module.css";

type Proposal = Schemas["BankProposal"];
type Owed = Schemas["OwedRow"];

/** Money that came by bank: a file is read, what it says finds its invoices, and is taken in once it was looked at. */
export function BankPage() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.bank);
  const [file, setFile] = useState<Schemas["BankFileView"] | null>(null);
  const [using, setUsing] = useState<Schemas["KeptMoney"] | null>(null);
  const [wrong, tell] = useTold();
  if (!data) return <main className="page" aria-busy="true" aria-label="Opening the bank" />;
  const did = async (answer: Promise<Schemas["BankView"]>) => {
    queries.setQueryData(ask.bank.queryKey, await answer);
    await queries.invalidateQueries({ queryKey: ["deliver"] });
  };
  return (
    <main className={`page ${styles.bank}`}>
      <h1>
        Bank <Link to="/office">Office</Link>
      </h1>
      <section className="panel" aria-label="Bank file">
        <header>
          <h2>Bank file</h2>
          <span className="note">a statement as XML (camt.053) or CSV; nothing of it is kept until you take it in</span>
          <FileAct
            words="Read a bank file"
            label="Bank file"
            accept=".xml,.csv,.txt"
            onFiles={([one]) => tell(change.readBankFile(one!).then(setFile))}
          />
        </header>
        {wrong && (
          <p className="pad error" role="alert">
            {wrong}
          </p>
        )}
        {file ? (
          <Entries
            key={file.entries.map((e) => e.line.id).join()}
            file={file}
            take={(entries) => did(change.takeBankEntries(entries)).then(() => setFile(null))}
          />
        ) : (
          <p className="pad note">
            Money that names an invoice goes to it; else to what its payer owes, the oldest due first. What is too much
            stands below as credit, and is used only by you. The same file twice is taken in once.
          </p>
        )}
        {data.refused.map((line) => (
          <p key={line} className="pad error" role="alert">
            {line}
          </p>
        ))}
      </section>
      <section className="panel" aria-label="Money on no invoice">
        <header>
          <h2>Money on no invoice</h2>
          <span className="note">credit of customers, and money that nobody has said anything of</span>
        </header>
        {data.credits.length === 0 ? (
          <p className="pad note">None.</p>
        ) : (
          <ul className={styles.rows}>
            {data.credits.map((money) => (
              <li key={money.id}>
                <span>
                  {money.words}
                  <small>{money.amount} came</small>
                </span>
                <b>{money.credit}</b>
                <button
                  type="button"
                  className="act"
                  aria-label={`Use ${money.credit} of ${money.words}`}
                  onClick={() => setUsing(money)}
                >
                  Use
                </button>
              </li>
            ))}
          </ul>
        )}
      </section>
      <section className="panel" aria-label="What is owed">
        <header>
          <h2>What is owed</h2>
          <span className="note">
            {data.sum} {data.currency} in all, the oldest due first
          </span>
        </header>
        {data.owed.length === 0 ? (
          <p className="pad note">Nothing is owed.</p>
        ) : (
          <ul className={styles.rows}>
            {data.owed.map((row) => (
              <li key={row.invoice}>
                <Link to={`/jobs/${row.job}/deliver`}>{row.words}</Link>
              </li>
            ))}
          </ul>
        )}
      </section>
      <section className="panel" aria-label="Taken in last">
        <header>
          <h2>Taken in last</h2>
        </header>
        {data.latest.length === 0 ? (
          <p className="pad note">No bank file was taken in yet.</p>
        ) : (
          <ul className={styles.rows}>
            {data.latest.map((money) => (
              <li key={money.id}>
                <span>{money.words}</span>
                <b>{money.amount}</b>
              </li>
            ))}
          </ul>
        )}
      </section>
      {using && (
        <UseMoney
          money={using}
          owed={data.owed}
          use={(use) => did(change.useBankCredit(using.id, use))}
          onClose={() => setUsing(null)}
        />
      )}
    </main>
  );
}

/** What was said of one, beside what was said of others; nothing for none. */
const withOne = (all: Readonly<Record<string, string>>, id: string, to: string) =>
  Object.fromEntries(Object.entries({ ...all, [id]: to }).filter(([, one]) => one !== ""));

/** What a file says: each entry with where it would go, ticked where it has found its invoice. */
function Entries(props: { file: Schemas["BankFileView"]; take: (entries: Schemas["TakeEntry"][]) => Promise<void> }) {
  const { file } = props;
  const open = (e: Proposal) => e.before === "" && e.stops === "";
  const [taken, setTaken] = useState(
    () => new Set(file.entries.filter((e) => open(e) && e.parts.length > 0).map((e) => e.line.id)),
  );
  const [elsewhere, setElsewhere] = useState<Record<string, string>>({});
  const [wrong, tell] = useTold();
  const tick = (id: string, on: boolean) => {
    const now = new Set(taken);
    if (on) now.add(id);
    else now.delete(id);
    setTaken(now);
  };
  const partsOf = (entry: Proposal): Schemas["BankPartTyped"][] => {
    const chosen = file.owed.find((o) => o.invoice === elsewhere[entry.line.id]);
    return chosen ? [{ job: chosen.job, invoice: chosen.invoice, amount: "", discount: "" }] : [...entry.parts];
  };
  const takes = file.entries.filter((e) => taken.has(e.line.id));
  return (
    <>
      <p className="pad">{file.says}</p>
      {file.leftAside.length > 0 && <p className="pad note">Left aside: {file.leftAside.join("; ")}.</p>}
      {wrong && (
        <p className="pad error" role="alert">
          {wrong}
        </p>
      )}
      {file.entries.length > 0 && (
        <ul className={styles.rows}>
          {file.entries.map((entry) => (
            <li key={entry.line.id} className={classes(styles.entry, !open(entry) && styles.before)}>
              {open(entry) ? (
                <Check on={taken.has(entry.line.id)} onTick={(on) => tick(entry.line.id, on)}>
                  {entry.words}
                </Check>
              ) : (
                <span>{entry.words}</span>
              )}
              <b>{entry.amount}</b>
              <div>
                {entry.before && <p className="note">taken in before: {entry.before}</p>}
                {entry.stops && <p className="note">{entry.stops}</p>}
                {open(entry) && (
                  <>
                    {elsewhere[entry.line.id] === undefined &&
                      entry.goes.map((line) => (
                        <p key={line}>
                          {line}
                          {entry.by === "payer" && <small> by who paid: it names no invoice</small>}
                        </p>
                      ))}
                    {elsewhere[entry.line.id] === undefined && entry.credit && (
                      <p>{entry.credit} is too much, and stands as credit</p>
                    )}
                    {(entry.parts.length === 0 || entry.by === "payer") && file.owed.length > 0 && (
                      <Choice
                        label={`Invoice for ${entry.words}`}
                        value={elsewhere[entry.line.id] ?? ""}
                        none={entry.parts.length > 0 ? "as it was found" : "no invoice: it stands as credit"}
                        options={file.owed.map((o: Owed) => [o.invoice, o.words] as const)}
                        onChoose={(to) => {
                          setElsewhere(withOne(elsewhere, entry.line.id, to));
                          if (to !== "") tick(entry.line.id, true);
                        }}
                      />
                    )}
                  </>
                )}
              </div>
            </li>
          ))}
        </ul>
      )}
      <p className="pad">
        <Button
          variant="contained"
          disabled={takes.length === 0}
          onClick={() =>
            tell(
              props.take(takes.map((entry) => ({ line: entry.line, customer: entry.customer, parts: partsOf(entry) }))),
            )
          }
        >
          Take {takes.length} in
        </Button>
      </p>
    </>
  );
}

/** Money that is on no invoice is used for one. */
function UseMoney(props: {
  money: Schemas["KeptMoney"];
  owed: readonly Owed[];
  use: (use: Schemas["UseCredit"]) => Promise<void>;
  onClose: () => void;
}) {
  const { money, owed } = props;
  const [id] = useState(newId);
  const [invoice, setInvoice] = useState(owed[0]?.invoice ?? "");
  const [amount, setAmount] = useState(money.left);
  const [wrong, setWrong] = useState("");
  const row = owed.find((o) => o.invoice === invoice);
  return (
    <Ask
      title={`Use ${money.credit}`}
      apply="Use it"
      ready={row !== undefined && amount.trim() !== ""}
      onApply={() => props.use({ id, part: { job: row!.job, invoice, amount, discount: "" } })}
      onRefused={(error) => {
        const beside = error instanceof Refused && error.field === "amount";
        setWrong(beside ? error.message : "");
        return beside;
      }}
      onClose={props.onClose}
    >
      <p>{money.words}</p>
      <Choice
        label="For the invoice"
        value={invoice}
        options={owed.map((o) => [o.invoice, o.words] as const)}
        onChoose={setInvoice}
      />
      <Input label="How much" inputMode="decimal" value={amount} wrong={wrong} onType={setAmount} />
    </Ask>
  );
}
