import { useState } from "react";
import type { Schemas } from "../src/api/client";
import type { Refused } from "./answered";
import { Row } from "./CrewHours";
import { crew, looks } from "./CrewPage";
import styles from "./crew.module.css";

type Page = Schemas["CrewPage"];
type Visit = Schemas["VisitRow"];

/** Visits of a round: done with the hours they took, or left out and why. */
export function CrewVisits({ page, onPage }: { page: Page; onPage: (page: Page) => void }) {
  return (
    <section className={styles.group} aria-label="Visits">
      <h2>Visits</h2>
      <ul>
        {page.visits.map((visit) => (
          <VisitOfCrew key={visit.id} visit={visit} page={page} onPage={onPage} />
        ))}
      </ul>
    </section>
  );
}

function VisitOfCrew({ visit, page, onPage }: { visit: Visit; page: Page; onPage: (page: Page) => void }) {
  const [id, setId] = useState(() => crypto.randomUUID());
  const [asks, setAsks] = useState<"done" | "leftOut" | null>(null);
  const [person, setPerson] = useState(page.for);
  const [hours, setHours] = useState("");
  const [words, setWords] = useState("");
  const [wrong, setWrong] = useState<Refused | null>(null);
  const [going, setGoing] = useState(false);
  const says = (field: string) => (wrong?.field === field ? wrong.message : "");
  const called = `${visit.name}, ${visit.words}`;
  const say = async (said: Schemas["VisitSaid"]) => {
    setGoing(true);
    try {
      const now = await crew.visits({
        id,
        visits: [{ visit: visit.id, kind: visit.kind }],
        said,
        day: "",
        words: said === "leftOut" ? words : "",
        hours: said === "done" && hours.trim() !== "" ? [{ person, hours }] : [],
      });
      setAsks(null);
      setWrong(null);
      setHours("");
      setWords("");
      setId(crypto.randomUUID());
      onPage(now);
    } catch (error) {
      setWrong(error as Refused);
    }
    setGoing(false);
  };
  return (
    <li className={visit.said === "done" ? styles.done : undefined}>
      <p className={styles.often}>
        <b>{called}</b>
        <span>{[visit.hours, visit.used && `${visit.used} used`].filter(Boolean).join(" \u00b7 ")}</span>
      </p>
      <p className={visit.isLate ? styles.wrong : styles.said}>{visit.stands}</p>
      {visit.reason && <p>{visit.reason}</p>}
      {!looks && (
        <p className={styles.part}>
          {visit.said === "open" ? (
            <>
              <button
                type="button"
                aria-expanded={asks === "done"}
                aria-label={`Done: ${called}`}
                onClick={() => setAsks(asks === "done" ? null : "done")}
              >
                Done
              </button>
              <button
                type="button"
                aria-expanded={asks === "leftOut"}
                aria-label={`Could not be done: ${called}`}
                onClick={() => setAsks(asks === "leftOut" ? null : "leftOut")}
              >
                Could not be done
              </button>
            </>
          ) : (
            <button type="button" aria-label={`Take back: ${called}`} onClick={() => !going && void say("open")}>
              Take back
            </button>
          )}
        </p>
      )}
      {asks !== null && (
        <form
          className={styles.form}
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            if (!going) void say(asks);
          }}
        >
          {asks === "done" ? (
            <div className={styles.pair}>
              <Row label="Who" wrong={says("person")}>
                {(row) => <input {...row} maxLength={80} value={person} onChange={(e) => setPerson(e.target.value)} />}
              </Row>
              <Row label="Hours" wrong={says("hours")}>
                {(row) => (
                  <input {...row} inputMode="decimal" value={hours} onChange={(e) => setHours(e.target.value)} />
                )}
              </Row>
            </div>
          ) : (
            <Row label="Why" wrong={says("words")}>
              {(row) => <input {...row} maxLength={500} value={words} onChange={(e) => setWords(e.target.value)} />}
            </Row>
          )}
          <button type="submit" className={styles.act} disabled={going}>
            {asks === "done" ? "It was done" : "It could not be done"}
          </button>
        </form>
      )}
      {wrong && (asks === null || !["person", "hours", "words"].includes(wrong.field)) && (
        <p className={styles.wrong} role="alert">
          {wrong.message}
        </p>
      )}
    </li>
  );
}
