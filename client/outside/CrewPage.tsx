import { useEffect, useState, type CSSProperties } from "react";
import type { Schemas } from "../src/api/client";
import { answered, sent } from "./answered";
import { CrewHours } from "./CrewHours";
import { CrewVisits } from "./CrewVisits";
import styles from "./crew.module.css";
import { NotHere } from "./NotHere";
import { usePage } from "./usePage";

type Page = Schemas["CrewPage"];
type Line = Schemas["OrderLineView"];

const token = /^\/c\/([^/]+)/.exec(location.pathname)?.[1];
const asked = new URLSearchParams(location.search);

/** Where the page is asked: by the crew's link, or by the office, which looks at it and does nothing there. */
const at = token === undefined ? `/api/jobs/${asked.get("job")}/deliver/links/${asked.get("link")}` : `/c/${token}`;
export const looks = token === undefined;

const json = async (answer: Promise<Response>) => (await (await answer).json()) as Page;

/** The way to what a crew's link shows. */
export const crew = {
  load: () => json(answered(fetch(`${at}/page`))),
  done: (mark: Schemas["MarkDone"]) => json(sent(`${at}/done`, mark)),
  hours: (write: Schemas["WriteHours"]) => json(sent(`${at}/hours`, write)),
  visits: (say: Schemas["SayOfVisits"]) => json(sent(`${at}/visits`, say)),
  mended: (snag: string, mend: Schemas["MendSnag"]) => json(sent(`${at}/snags/${snag}/mended`, mend)),
  takeBack: (fact: string, id: string) => json(sent(`${at}/hours/${fact}/take-back`, { id })),
};

/** The work order on a crew's telephone: what to do where, what is done, and the hours. */
export function CrewPage() {
  const { page, setPage, wrong, again } = usePage(crew.load);
  useEffect(() => {
    if (page) document.title = `${page.order.title}, work order`;
  }, [page]);
  return page ? <Shown page={page} onPage={setPage} /> : <NotHere wrong={wrong} onAgain={() => void again()} />;
}

function Shown({ page, onPage }: { page: Page; onPage: (page: Page) => void }) {
  const { order } = page;
  const [view, setView] = useState<"work" | "hours">("work");
  const [bySection, setBySection] = useState(false);
  return (
    <div className={styles.page} style={{ "--brand": page.colour } as CSSProperties}>
      <div className={styles.band} aria-hidden="true" />
      {looks && <p className={styles.looks}>What the crew sees. From here nothing is ticked and nothing written.</p>}
      <header className={styles.head}>
        <p>
          {page.firm} · for {page.for}
        </p>
        <h1>{order.title}</h1>
        <p>{[order.for, order.where].filter(Boolean).join(", ")}</p>
        <p>
          {page.about.length > 0 ? `${page.about.join(", ")}: ` : ""}
          <b>{order.hours}</b> allowed, {order.planned}
          {order.percent && (
            <>
              {" "}
              · <b>{order.percent}</b> done
            </>
          )}
        </p>
      </header>
      {page.days.length > 0 && (
        <section className={styles.days} aria-label="Days">
          <h2>Days</h2>
          <ul>
            {page.days.map((day) => (
              <li key={day}>{day}</li>
            ))}
          </ul>
        </section>
      )}
      <nav className={styles.views} aria-label="What is shown">
        {(looks ? (["work"] as const) : (["work", "hours"] as const)).map((one) => (
          <button key={one} type="button" aria-pressed={view === one} onClick={() => setView(one)}>
            {one === "work" ? "Work" : "Hours"}
          </button>
        ))}
      </nav>
      <main>
        {view === "hours" ? (
          <CrewHours page={page} onPage={onPage} />
        ) : (
          <>
            <p className={styles.tools}>
              <button type="button" onClick={() => setBySection(!bySection)}>
                {bySection ? "Stands by section: show by place" : "Stands by place: show by section"}
              </button>
              {!looks && <a href={`${at}/pdf?bySection=${bySection}`}>PDF</a>}
            </p>
            {page.visits.length > 0 && <CrewVisits page={page} onPage={onPage} />}
            {page.snags.length > 0 && <Snags page={page} onPage={onPage} />}
            <Groups order={order} bySection={bySection} onPage={onPage} />
            <Rest page={page} />
          </>
        )}
      </main>
    </div>
  );
}

/** What is to be mended; open ones first. */
function Snags({ page, onPage }: { page: Page; onPage: (page: Page) => void }) {
  const [wrong, setWrong] = useState("");
  const mend = (snag: string, mended: boolean) =>
    crew.mended(snag, { id: crypto.randomUUID(), mended }).then(
      (now) => {
        onPage(now);
        setWrong("");
      },
      (error: Error) => setWrong(error.message),
    );
  return (
    <section className={styles.group} aria-label="To be mended">
      <h2>To be mended</h2>
      <ul>
        {page.snags.map((snag) => (
          <li key={snag.id} className={snag.mended ? styles.done : undefined}>
            <label>
              <input
                type="checkbox"
                checked={snag.mended}
                disabled={looks}
                aria-label={`${snag.text}: mended`}
                onChange={(e) => void mend(snag.id, e.target.checked)}
              />
              <b>{snag.text}</b>
              <span>{snag.where}</span>
            </label>
            <p className={styles.said}>{snag.said}</p>
          </li>
        ))}
      </ul>
      {wrong && (
        <p className={styles.wrong} role="alert">
          {wrong}
        </p>
      )}
    </section>
  );
}

interface GroupsProps {
  order: Schemas["OrderView"];
  bySection: boolean;
  onPage: (page: Page) => void;
}

function Groups({ order, bySection, onPage }: GroupsProps) {
  const groups = bySection ? order.bySection : order.byPlace;
  return groups.map((group, i) => (
    <section key={`${group.heading}/${group.name}`} className={styles.group} aria-label={group.name}>
      {group.heading && groups[i - 1]?.heading !== group.heading && <p className={styles.heading}>{group.heading}</p>}
      <details open={!group.done}>
        <summary>
          <h2>{group.name}</h2>
          <span>{group.says}</span>
          <b>{group.hours}</b>
        </summary>
        <ul>
          {group.lines
            .map((at) => order.lines[at]!)
            .map((line) => (
              <LineOfCrew key={line.work + line.place} line={line} bySection={bySection} onPage={onPage} />
            ))}
        </ul>
      </details>
    </section>
  ));
}

function LineOfCrew(props: { line: Line; bySection: boolean; onPage: (page: Page) => void }) {
  const { line, bySection } = props;
  const [wrong, setWrong] = useState("");
  const [going, setGoing] = useState(false);
  const mark = async (percent: string) => {
    setGoing(true);
    try {
      props.onPage(
        await crew.done({ id: crypto.randomUUID(), lines: [{ work: line.work, place: line.place }], percent }),
      );
      setWrong("");
    } catch (error) {
      setWrong((error as Error).message);
    }
    setGoing(false);
  };
  const title = bySection ? `${line.at}: ${line.name}` : [line.section, line.name].filter(Boolean).join(": ");
  const notes = [line.goods.join("; "), line.supply, line.facts.join(", "), ...line.notes].filter(Boolean);
  return (
    <li className={line.done ? styles.done : undefined}>
      {line.ticks ? (
        <label>
          <input
            type="checkbox"
            checked={line.done}
            disabled={looks}
            aria-label={`${line.name}, ${line.at}: done`}
            onChange={(e) => !going && void mark(e.target.checked ? "100" : "0")}
          />
          <b>{title}</b>
          <span>{[line.amount, line.hours].filter(Boolean).join(" · ")}</span>
        </label>
      ) : (
        <p className={styles.often}>
          <b>{title}</b>
          <span>{[line.often, line.amount, line.hours].filter(Boolean).join(" · ")}</span>
        </p>
      )}
      {notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      {line.ticks && !line.done && !looks && (
        <p className={styles.part}>
          <span>{line.begun ? `${line.percent} % done` : "not done yet"}</span>
          {["25", "50", "75"].map((percent) => (
            <button
              key={percent}
              type="button"
              aria-pressed={line.percent === percent}
              aria-label={`${percent} % of ${line.name}, ${line.at}, is done`}
              onClick={() => !going && void mark(percent)}
            >
              {percent} %
            </button>
          ))}
        </p>
      )}
      {line.said && line.done && <p className={styles.said}>done: {line.said}</p>}
      {wrong && (
        <p className={styles.wrong} role="alert">
          {wrong}
        </p>
      )}
    </li>
  );
}

function Rest({ page }: { page: Page }) {
  const { order } = page;
  const lists: [string, readonly string[]][] = [
    ["For the job as a whole", order.once.map((r) => `${r.name}, ${r.amount}`)],
    ["Goods for the job", order.supplies.map((r) => `${r.name}: ${r.amount}, ${r.detail}`)],
    ["To be mixed", order.mixes.map((r) => `${r.name}, of ${r.detail}`)],
    ["Not in this work", order.leftOut],
    ["The customer does", order.theirs],
  ];
  return lists
    .filter(([, rows]) => rows.length > 0)
    .map(([title, rows]) => (
      <section key={title} className={styles.group} aria-label={title}>
        <h2>{title}</h2>
        <ul className={styles.rest}>
          {rows.map((row) => (
            <li key={row}>{row}</li>
          ))}
        </ul>
      </section>
    ));
}
