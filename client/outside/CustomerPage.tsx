import { useEffect, useState, type CSSProperties } from "react";
import type { Schemas } from "../src/api/client";
import { Letterhead } from "../src/proposal/Letterhead";
import { One } from "../src/proposal/Elements";
import { FilesContext } from "../src/proposal/filesContext";
import paper from "../src/proposal/paper.module.css";
import { Agreed } from "./Agreed";
import { Choices } from "./Choices";
import { Contents } from "./Contents";
import styles from "./customer.module.css";
import { Decline } from "./Decline";
import { linkOf, type Now, type Page } from "./link";
import { NotHere } from "./NotHere";
import { usePage } from "./usePage";
import { Questions } from "./Questions";
import { Sign } from "./Sign";

const link = linkOf(location);

/** That it was looked at. */
const seen = () => void link.seen().catch(() => undefined);

/** A revision as its customer reads it, with what they can say to it. */
export function CustomerPage() {
  const { page, setPage, wrong, again } = usePage(link.load, seen);
  useEffect(() => {
    if (page) document.title = `${page.document.head.title}, ${page.document.head.firm}`;
  }, [page]);
  if (page)
    return (
      <FilesContext value={link.files}>
        <Shown page={page} onPage={(now) => setPage({ ...page, ...now })} />
      </FilesContext>
    );
  return <NotHere wrong={wrong} onAgain={() => void again()} />;
}

function Shown({ page, onPage }: { page: Page; onPage: (now: Now) => void }) {
  const { document: read, brand } = page;
  const { head } = read;
  const [declining, setDeclining] = useState(false);
  const signing = useHash() === "#sign";
  const maySign = page.open && (page.signs || link.atTablet);
  const colours = { "--brand": brand.colour, "--brand-words": brand.colourOfWords } as CSSProperties;
  const cover = read.blocks.find((b) => b.kind === "cover");
  const blocks = read.blocks.filter((b) => b.kind !== "cover" && b.kind !== "signatures");
  const places = [
    ...(page.agreed ? [{ id: "agreed", title: "What was agreed" }] : []),
    ...blocks.filter((b) => b.isTitled).map((b) => ({ id: `block-${b.id}`, title: b.title })),
    { id: "questions", title: "Questions" },
  ];
  return (
    <div className={styles.page} style={colours}>
      <div className={brand.look === "tape" ? styles.tape : styles.band} aria-hidden="true" />
      {link.byFirm && !link.atTablet && (
        <p className={styles.firm}>What the customer sees. That you look at it from here is not recorded.</p>
      )}
      {signing && maySign ? (
        <Sign page={page} link={link} onPage={onPage} />
      ) : (
        <>
          <div className={styles.columns}>
            <main className={`${paper.paper} ${styles.paper}`}>
              <Letterhead head={head} brand={brand} mark={page.hasMark && !link.byFirm ? link.mark : ""} />
              <h1 className={styles.title}>{head.title}</h1>
              <p className={paper.subtitle}>{head.subtitle}</p>
              {page.stands && (
                <p className={styles.stands} role="status">
                  {page.stands}
                </p>
              )}
              {page.holds && <p className={styles.holds}>{page.holds}</p>}
              {page.agreed && (
                <div id="agreed">
                  <Agreed page={page} link={link} />
                </div>
              )}
              {cover && [...cover.words, ...cover.made].map((element, i) => <One key={i} element={element} />)}
              {blocks.map((block) => (
                <section key={block.id} id={`block-${block.id}`} aria-label={block.title}>
                  {block.isTitled && <h2>{block.title}</h2>}
                  {block.kind === "options" && page.offer ? (
                    <Choices page={page} offer={page.offer} link={link} onPage={onPage} />
                  ) : (
                    elements(block).map((element, i) => <One key={i} element={element} />)
                  )}
                </section>
              ))}
              <Questions page={page} link={link} onPage={onPage} />
              {brand.foot && <p className={styles.end}>{brand.foot}</p>}
            </main>
            <Contents places={places} />
          </div>
          <footer className={styles.foot}>
            <div>
              <a href={link.pdf}>The PDF</a>
              {page.hasSchedule && <a href={link.schedule}>Your schedule, priced (XLSX)</a>}
              {page.statement.taken.length > 0 ? (
                <span>with {page.statement.taken.join("; ")}</span>
              ) : (
                page.for && <span className={styles.for}>made for {page.for}</span>
              )}
            </div>
            <p className={styles.pay}>
              <span>You pay</span> <b>{page.statement.total}</b> <span>{page.currency}</span>
            </p>
            <div className={styles.acts}>
              {page.open && page.signs && (
                <button type="button" className={styles.quiet} onClick={() => setDeclining(true)}>
                  Decline
                </button>
              )}
              {!link.byFirm && (
                <a className={maySign ? styles.quiet : styles.act} href="#ask">
                  {page.stands && !page.agreed ? "Ask for it again" : "Ask a question"}
                </a>
              )}
              {maySign && (
                <a className={styles.act} href="#sign">
                  Accept and sign
                </a>
              )}
              {link.atTablet && !maySign && (
                <a className={styles.quiet} href={link.back}>
                  Back to the job
                </a>
              )}
            </div>
          </footer>
        </>
      )}
      {declining && <Decline link={link} page={page} onPage={onPage} onClose={() => setDeclining(false)} />}
    </div>
  );
}

/** What a block says, in reading order. */
const elements = (block: Schemas["Block"]) =>
  block.wordsAfter ? [...block.made, ...block.words] : [...block.words, ...block.made];

/** Where the address leads within the page; going back leads back. */
function useHash() {
  const [hash, setHash] = useState(location.hash);
  useEffect(() => {
    const moved = () => {
      setHash(location.hash);
      if (location.hash === "#sign" || location.hash === "") scrollTo(0, 0);
    };
    addEventListener("hashchange", moved);
    return () => removeEventListener("hashchange", moved);
  }, []);
  return hash;
}
