import { counted } from "../controls/counted";
import { useQuery } from "@tanstack/react-query";
import { Button, Menu, MenuItem } from "@mui/material";
import { useDeferredValue, useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { BookInOut } from "./BookInOut";
import { CatalogueDialog } from "./CatalogueDialog";
import { EntryPage } from "./EntryPage";
import { FeedDialog } from "./FeedDialog";
import { NewEntry } from "./NewEntry";
import { Input } from "../controls/Input";
import { Choice } from "../controls/Choice";
import { Check } from "../controls/Check";
import styles from "./book.module.css";
import { classes } from "../controls/classes";
import { ask } from "../api/queries";

/** The Book: find an entry, change it, try it. */
export function BookPage() {
  const { id } = useParams();
  const [words, setWords] = useState("");
  const [kind, setKind] = useState("");
  const [trade, setTrade] = useState("");
  const [archived, setArchived] = useState(false);
  const [dialog, setDialog] = useState<"" | "new" | "inout" | "feed" | "catalogue">("");
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const asked = useDeferredValue(words);
  const navigate = useNavigate();
  const { data: list } = useQuery(ask.bookList({ words: asked, kind, trade, archived }));
  useEffect(() => {
    document.title = "The Book — Emendum";
  }, []);
  const shown = list?.entries ?? [];
  const open = (to: string) => void navigate(`/book/${to}`);
  return (
    <main className={styles.book}>
      <header className="head">
        <h1>The Book</h1>
        <span className="sub">
          {list && `${counted(list.all, "entry", "entries")} · ${list.trades.join(", ").toLowerCase()}`}
        </span>
        <button className="plain" onClick={() => setDialog("feed")}>
          Supplier prices
        </button>
        <button className="plain" onClick={() => setDialog("catalogue")}>
          Supplier&apos;s catalogue
        </button>
        <button className="plain" onClick={() => setDialog("inout")}>
          In and out
        </button>
        <Button size="small" variant="contained" onClick={(e) => setMenu(e.currentTarget)}>
          New entry
        </Button>
        <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
          {list?.kinds.map((k) => (
            <MenuItem
              key={k.kind}
              onClick={() => {
                setMenu(null);
                setKind(k.kind);
                setDialog("new");
              }}
            >
              {k.words}
            </MenuItem>
          ))}
        </Menu>
      </header>
      <div className={styles.leaves}>
        <section className={`panel ${styles.booklist}`} aria-label="Entries of the Book">
          <div className={styles.finding}>
            <Input
              bare
              find
              placeholder="Type to find"
              label="Find an entry"
              value={words}
              onType={setWords}
              onKeyDown={(e) => {
                if (e.key === "Enter" && shown[0]) open(shown[0].id);
                if (e.key === "Escape") setWords("");
              }}
            />
            <Choice
              bare
              label="Kind"
              value={kind}
              none="Every kind"
              options={(list?.kinds ?? []).map((k) => [k.kind, `${k.many} (${k.count})`])}
              onChoose={setKind}
            />
            <Choice
              bare
              label="Trade"
              value={trade}
              none="Every trade"
              options={(list?.trades ?? []).map((t) => [t, t])}
              onChoose={setTrade}
            />
            <Check on={archived} onTick={setArchived}>
              archived
            </Check>
            <span className="note" role="status">
              {list && (list.found > shown.length ? `first ${shown.length} of ${list.found}` : `${list.found} found`)}
            </span>
          </div>
          <ul aria-label="Found">
            {shown.map((entry, i) => (
              <li key={entry.id}>
                {(i === 0 || shown[i - 1]!.section !== entry.section) && asked === "" && (
                  <h3>{entry.section || "No section"}</h3>
                )}
                <button
                  className={classes(styles.entryrow, entry.id === id && styles.current)}
                  aria-current={entry.id === id ? "true" : undefined}
                  onClick={() => open(entry.id)}
                >
                  <span>
                    {entry.name}
                    <small>{entry.says}</small>
                  </span>
                  <small>{entry.kindWords}</small>
                </button>
              </li>
            ))}
          </ul>
          {list && list.found === 0 && (
            <p className="note pad">
              {archived ? "Nothing archived has that." : "Nothing has that. A new entry starts with the button above."}
            </p>
          )}
        </section>
        {id ? (
          <EntryPage key={id} id={id} />
        ) : (
          <section className={`panel ${styles.empty}`} aria-label="No entry chosen">
            <h2>What your firm knows about its own work</h2>
            <p>
              Rates, assemblies, goods and what they cost. Choose an entry at the left, or type to find one and press
              Enter. Every rate and assembly can be tried: type a quantity, see hours, goods and cost.
            </p>
          </section>
        )}
      </div>
      {dialog === "new" && (
        <NewEntry
          kind={kind}
          words={list?.kinds.find((k) => k.kind === kind)?.words ?? kind}
          onClose={() => setDialog("")}
          onMade={(made) => {
            setDialog("");
            setKind("");
            open(made);
          }}
        />
      )}
      {dialog === "inout" && <BookInOut onClose={() => setDialog("")} />}
      {dialog === "catalogue" && <CatalogueDialog onClose={() => setDialog("")} />}
      {dialog === "feed" && <FeedDialog onClose={() => setDialog("")} />}
    </main>
  );
}
