import { useId, useState, type ReactNode } from "react";
import type { Schemas } from "../src/api/client";
import type { Refused } from "./answered";
import { crew } from "./CrewPage";
import styles from "./crew.module.css";

type Page = Schemas["CrewPage"];
type For = Schemas["HoursFor"];

/** Hours of the crew: written here, and what was written by this link. What is refused stays in its field. */
export function CrewHours({ page, onPage }: { page: Page; onPage: (page: Page) => void }) {
  const [id, setId] = useState(() => crypto.randomUUID());
  const [on, setOn] = useState<For>("work");
  const [work, setWork] = useState("");
  const [place, setPlace] = useState("");
  const [person, setPerson] = useState(page.for);
  const [day, setDay] = useState(page.today);
  const [hours, setHours] = useState("");
  const [words, setWords] = useState("");
  const [wrong, setWrong] = useState<Refused | null>(null);
  const [going, setGoing] = useState(false);
  const [done, setDone] = useState("");
  const of = page.works.find((w) => w.id === work);
  const told = async (answer: Promise<Page>, said: string) => {
    setGoing(true);
    setWrong(null);
    setDone("");
    try {
      onPage(await answer);
      setDone(said);
    } catch (error) {
      setWrong(error as Refused);
      setGoing(false);
      return;
    }
    setGoing(false);
    setHours("");
    setWords("");
    setId(crypto.randomUUID());
  };
  const write = () =>
    told(
      crew.hours({
        id,
        for: on,
        work: on !== "setUp" && work !== "" ? work : null,
        place: on !== "setUp" && place !== "" ? place : null,
        person,
        day,
        hours,
        words,
      }),
      "They are written.",
    );
  const says = (field: string) => (wrong?.field === field ? wrong.message : "");
  return (
    <>
      <form
        className={styles.form}
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (!going) void write();
        }}
      >
        <h2>Write hours</h2>
        <Row label="Who" wrong={says("person")}>
          {(row) => <input {...row} maxLength={80} value={person} onChange={(e) => setPerson(e.target.value)} />}
        </Row>
        <div className={styles.pair}>
          <Row label="Day" wrong={says("day")}>
            {(row) => <input {...row} type="date" value={day} onChange={(e) => setDay(e.target.value)} />}
          </Row>
          <Row label="Hours" wrong={says("hours")}>
            {(row) => <input {...row} inputMode="decimal" value={hours} onChange={(e) => setHours(e.target.value)} />}
          </Row>
        </div>
        <Row label="For">
          {(row) => (
            <select {...row} value={on} onChange={(e) => setOn(e.target.value as For)}>
              <option value="work">the work</option>
              <option value="setUp">set-up and travel</option>
              <option value="snags">mending afterwards</option>
            </select>
          )}
        </Row>
        {on !== "setUp" && (
          <Row label="On" wrong={says("work")}>
            {(row) => (
              <select
                {...row}
                value={work}
                onChange={(e) => {
                  setWork(e.target.value);
                  setPlace("");
                }}
              >
                <option value="">the job as a whole</option>
                {page.works.map((w) => (
                  <option key={w.id} value={w.id}>
                    {w.name}
                  </option>
                ))}
              </select>
            )}
          </Row>
        )}
        {on !== "setUp" && of && (
          <Row label="Where" wrong={says("place")}>
            {(row) => (
              <select {...row} value={place} onChange={(e) => setPlace(e.target.value)}>
                <option value="">all of it</option>
                {of.places.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              </select>
            )}
          </Row>
        )}
        <Row label="Note" wrong={says("words")}>
          {(row) => <input {...row} maxLength={500} value={words} onChange={(e) => setWords(e.target.value)} />}
        </Row>
        {wrong && !["person", "day", "hours", "work", "place", "words"].includes(wrong.field) && (
          <p className={styles.wrong} role="alert">
            {wrong.message}
          </p>
        )}
        <button type="submit" className={styles.act} disabled={going}>
          {going ? "Writing…" : "Write them"}
        </button>
        <span role="status">{done}</span>
      </form>
      <section className={styles.group} aria-label="Hours written here">
        <h2>Written here</h2>
        {page.hours.length === 0 && <p className={styles.none}>Nothing yet.</p>}
        <ul className={styles.written}>
          {page.hours.map((one) => (
            <li key={one.id}>
              <span>
                <b>{one.hours}</b> {one.person}, {one.day}
                <small>
                  {one.on}
                  {one.words && ` · ${one.words}`}
                </small>
              </span>
              <button
                type="button"
                aria-label={`Take back ${one.hours} of ${one.person}, ${one.day}`}
                onClick={() => !going && void told(crew.takeBack(one.id, crypto.randomUUID()), "They are taken back.")}
              >
                Take back
              </button>
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}

interface Field {
  id: string;
  "aria-invalid": true | undefined;
  "aria-describedby": string | undefined;
}

/** A field of a form, with what is wrong with it. */
export function Row(props: { label: string; wrong?: string; children: (row: Field) => ReactNode }) {
  const id = useId();
  return (
    <div className={styles.row}>
      <label htmlFor={id}>{props.label}</label>
      {props.children({
        id,
        "aria-invalid": props.wrong ? true : undefined,
        "aria-describedby": props.wrong ? `${id}says` : undefined,
      })}
      {props.wrong && (
        <small id={`${id}says`} className={styles.wrong} role="alert">
          {props.wrong}
        </small>
      )}
    </div>
  );
}
