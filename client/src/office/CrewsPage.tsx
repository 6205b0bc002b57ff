import { Button } from "@mui/material";
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Input } from "../controls/Input";
import { LinkAddress, type LinkMade } from "../controls/LinkAddress";
import { useTold } from "../controls/useTold";
import { Moves } from "../deliver/TaskSheet";
import styles from "./crews.module.css";

type Crews = Schemas["CrewsTyped"];
type Crew = Schemas["CrewTyped"];
type Time = Schemas["WorkingTimeTyped"];

const weekdays = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** A new crew works as the firm does. */
const newCrew = (firm: Time): Crew => ({
  id: newId(),
  name: "",
  size: "2",
  time: { week: firm.week, off: [] },
  isOtherFirm: false,
  mail: "",
  phone: "",
});

const short = (at: number) => weekdays[at]!.slice(0, 3);

/** When a week is worked, in a line: days alike that follow each other together. */
function weekWords(time: Time): string {
  const words: string[] = [];
  for (let from = 0; from < time.week.length;) {
    let to = from;
    while (to + 1 < time.week.length && time.week[to + 1] === time.week[from]) to++;
    const days = from === to ? short(from) : `${short(from)}–${short(to)}`;
    if (time.week[from]) words.push(`${days} ${time.week[from]}`);
    from = to + 1;
  }
  return words.join(" · ");
}

const offWords = (time: Time) =>
  time.off.map((o) => `${o.from}${o.to ? ` to ${o.to}` : ""}${o.why ? `, ${o.why}` : ""}`).join(" · ");

/** Who works for the firm, and when; what changes here pushes tasks of all jobs, and says so before. */
export function CrewsPage() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.crews);
  const { data: calendars } = useQuery(ask.calendars);
  const [editing, setEditing] = useState<Crew | "firm" | null>(null);
  const [made, setMade] = useState<LinkMade | null>(null);
  const [wrong, tell] = useTold();
  if (!data) return <main className="page" aria-busy="true" aria-label="Opening the crews" />;
  const save = async (now: Crews) => {
    await change.crews({ was: data, now });
    await Promise.all([
      queries.invalidateQueries({ queryKey: ["crews"] }),
      queries.invalidateQueries({ queryKey: ["deliver"] }),
    ]);
  };
  const withCrew = (crew: Crew): Crews => ({
    ...data,
    all: data.all.some((c) => c.id === crew.id)
      ? data.all.map((c) => (c.id === crew.id ? crew : c))
      : [...data.all, crew],
  });
  const calendar = async (crew: Crew) => {
    const { address } = await change.makeCalendar(crew.id, newId());
    setMade({ who: crew.name, address });
    await queries.invalidateQueries(ask.calendars);
  };
  return (
    <main className={`page ${styles.crews}`}>
      <h1>
        Crews <Link to="/office">Office</Link>
      </h1>
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
      <section className="panel" aria-label="When the firm works">
        <header>
          <h2>When the firm works</h2>
          <button type="button" className="act" onClick={() => setEditing("firm")}>
            Change the firm’s hours
          </button>
        </header>
        <dl>
          <dt>Hours</dt>
          <dd>{weekWords(data.firm)}</dd>
          <dt>Days off</dt>
          <dd>{offWords(data.firm) || "none"}</dd>
        </dl>
      </section>
      <section className="panel" aria-label="Crews">
        <header>
          <h2>Crews</h2>
          <span className="note">and other firms that work for you</span>
          <Button variant="contained" onClick={() => setEditing(newCrew(data.firm))}>
            Add a crew
          </Button>
        </header>
        {data.all.length === 0 ? (
          <p className="pad note">
            Nobody is here yet. A crew is one person or several who go together; its hours and days off say when its
            tasks can be done, and its address where it is told of them.
          </p>
        ) : (
          <table className="list">
            <thead>
              <tr>
                <th scope="col">Crew</th>
                <th scope="col">People</th>
                <th scope="col">Works</th>
                <th scope="col">Days off</th>
                <th scope="col">Told by</th>
                <th scope="col">Calendar</th>
                <th scope="col" />
              </tr>
            </thead>
            <tbody>
              {data.all.map((crew) => {
                const stands = calendars?.crews.find((c) => c.crew === crew.id);
                return (
                  <tr key={crew.id}>
                    <th scope="row">
                      {crew.name}
                      {crew.isOtherFirm && <small>another firm</small>}
                    </th>
                    <td>{crew.size}</td>
                    <td>{weekWords(crew.time)}</td>
                    <td>{offWords(crew.time)}</td>
                    <td>{crew.mail || crew.phone || "nobody: no address"}</td>
                    <td>
                      {stands && <small>{stands.words}</small>}
                      {calendars?.outside && (
                        <button
                          type="button"
                          className="link"
                          aria-label={`New calendar address for ${crew.name}`}
                          onClick={() => tell(calendar(crew))}
                        >
                          new address
                        </button>
                      )}{" "}
                      {stands && (
                        <button
                          type="button"
                          className="link"
                          aria-label={`Revoke calendar addresses of ${crew.name}`}
                          onClick={() =>
                            tell(
                              change
                                .revokeCalendars(crew.id)
                                .then((now) => queries.setQueryData(ask.calendars.queryKey, now)),
                            )
                          }
                        >
                          revoke
                        </button>
                      )}
                    </td>
                    <td>
                      <span className={styles.acts}>
                        <button
                          type="button"
                          className="act"
                          aria-label={`Change ${crew.name}`}
                          onClick={() => setEditing(crew)}
                        >
                          Change
                        </button>
                        <button
                          type="button"
                          className="act"
                          aria-label={`Remove ${crew.name}`}
                          onClick={() => tell(save({ ...data, all: data.all.filter((c) => c.id !== crew.id) }))}
                        >
                          Remove
                        </button>
                      </span>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
        <p className="pad note">
          A calendar program asks for the days of a crew at its private address: what was told of all jobs, and nothing
          else.
          {calendars?.outside === false &&
            " The program was started without a door to the outside, so none can be made."}
        </p>
      </section>
      {editing === "firm" ? (
        <TimeDialog
          title="When the firm works"
          time={data.firm}
          would={(firm) => ({ ...data, firm })}
          save={(firm) => save({ ...data, firm })}
          onClose={() => setEditing(null)}
        />
      ) : (
        editing && (
          <CrewDialog
            crew={editing}
            would={withCrew}
            save={(crew) => save(withCrew(crew))}
            onClose={() => setEditing(null)}
          />
        )
      )}
      {made && <LinkAddress made={made} onClose={() => setMade(null)} />}
    </main>
  );
}

/** What is wrong beside its field. */
type Wrong = (field: string) => string | undefined;

/** The hours of a week, and days off. */
function TimeFields({ time, wrong, onType }: { time: Time; wrong: Wrong; onType: (time: Time) => void }) {
  const off = (at: number, part: Partial<Schemas["DaysOffTyped"]>) =>
    onType({ ...time, off: time.off.map((o, i) => (i === at ? { ...o, ...part } : o)) });
  return (
    <>
      <fieldset className={styles.week}>
        <legend>Hours, like 8–12, 12:30–16:30; nothing for no work</legend>
        {weekdays.map((weekday, at) => (
          <Input
            key={weekday}
            row
            label={weekday}
            value={time.week[at] ?? ""}
            onType={(hours) => onType({ ...time, week: time.week.map((h, i) => (i === at ? hours : h)) })}
          />
        ))}
        {wrong("week") && (
          <p className="error" role="alert">
            {wrong("week")}
          </p>
        )}
      </fieldset>
      <fieldset className={styles.off}>
        <legend>Days off</legend>
        {time.off.map((o, at) => (
          <div key={at}>
            <Input
              bare
              label={`Days off ${at + 1}, from`}
              placeholder="2027-01-31"
              value={o.from}
              onType={(from) => off(at, { from })}
            />
            <Input
              bare
              label={`Days off ${at + 1}, to`}
              placeholder="one day"
              value={o.to}
              onType={(to) => off(at, { to })}
            />
            <Input
              bare
              label={`Days off ${at + 1}, why`}
              placeholder="why"
              maxLength={200}
              value={o.why}
              onType={(why) => off(at, { why })}
            />
            <button
              type="button"
              className="act"
              aria-label={`Remove days off ${at + 1}`}
              onClick={() => onType({ ...time, off: time.off.filter((_, i) => i !== at) })}
            >
              Remove
            </button>
          </div>
        ))}
        <button
          type="button"
          className="act"
          onClick={() => onType({ ...time, off: [...time.off, { from: "", to: "", why: "" }] })}
        >
          Add days off
        </button>
        {wrong("off") && (
          <p className="error" role="alert">
            {wrong("off")}
          </p>
        )}
      </fieldset>
    </>
  );
}

/** What it would move, once it can be read; and what is wrong with it where it cannot. */
function useWould(crews: Crews): { wrong: Wrong; refused: boolean; moves: Schemas["CrewsMoves"] | undefined } {
  const { data, error } = useQuery({ ...ask.crewsMoves(crews), placeholderData: keepPreviousData });
  return {
    wrong: (field) => (error instanceof Refused && error.field === field ? error.message : undefined),
    refused: error !== null,
    moves: error ? undefined : data,
  };
}

function Would({ moves }: { moves: Schemas["CrewsMoves"] | undefined }) {
  return (
    <div className={styles.would} role="status">
      {moves && (moves.moves.length > 0 ? <Moves moves={moves.moves} more={moves.more} /> : "It moves no task.")}
    </div>
  );
}

function TimeDialog(props: {
  title: string;
  time: Time;
  would: (time: Time) => Crews;
  save: (time: Time) => Promise<void>;
  onClose: () => void;
}) {
  const [time, setTime] = useState(props.time);
  const { wrong, refused, moves } = useWould(props.would(time));
  return (
    <Ask title={props.title} apply="Keep" ready={!refused} onApply={() => props.save(time)} onClose={props.onClose}>
      <TimeFields time={time} wrong={wrong} onType={setTime} />
      <Would moves={moves} />
    </Ask>
  );
}

function CrewDialog(props: {
  crew: Crew;
  would: (crew: Crew) => Crews;
  save: (crew: Crew) => Promise<void>;
  onClose: () => void;
}) {
  const [crew, setCrew] = useState(props.crew);
  const { wrong, refused, moves } = useWould(props.would(crew));
  const set = (part: Partial<Crew>) => setCrew({ ...crew, ...part });
  const named = crew.name.trim() !== "";
  return (
    <Ask
      title={props.crew.name || "Add a crew"}
      apply="Keep"
      ready={!refused && named}
      onApply={() => props.save(crew)}
      onClose={props.onClose}
    >
      <Input
        label="Name"
        focus
        maxLength={80}
        value={crew.name}
        wrong={named ? wrong("name") : undefined}
        hint="a person, a crew or another firm"
        onType={(name) => set({ name })}
      />
      <Input
        label="People"
        inputMode="numeric"
        value={crew.size}
        wrong={wrong("size")}
        onType={(size) => set({ size })}
      />
      <Check on={crew.isOtherFirm} onTick={(isOtherFirm) => set({ isOtherFirm })}>
        Another firm: our days off are not theirs
      </Check>
      <Input
        label="E-mail"
        value={crew.mail}
        wrong={wrong("mail")}
        hint="where they are told of their days"
        onType={(mail) => set({ mail })}
      />
      <Input
        label="Telephone"
        value={crew.phone}
        wrong={wrong("phone")}
        hint="for a text message, where there is no e-mail"
        onType={(phone) => set({ phone })}
      />
      <TimeFields time={crew.time} wrong={wrong} onType={(time) => set({ time })} />
      <Would moves={moves} />
    </Ask>
  );
}
