import { Button } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { Choice } from "../controls/Choice";
import { useTold } from "../controls/useTold";
import styles from "./schedule.module.css";

type Task = Schemas["TaskView"];
type Preview = Schemas["TaskPreview"];

/** What a task is, and what can be done with it. */
export function TaskSheet(props: {
  task: Task;
  onEdit: () => void;
  onStep: (by: number) => void;
  onRemove: () => void;
  onClose: () => void;
}) {
  const { task } = props;
  return (
    <section className={`panel ${styles.sheet}`} aria-label={task.called}>
      <header>
        <h2>{task.called}</h2>
        <button type="button" className="act" onClick={props.onClose}>
          Close
        </button>
      </header>
      <dl>
        <dt>Days</dt>
        <dd>
          <b>{task.days}</b>
        </dd>
        <dt>Crew</dt>
        <dd>{task.crewName}</dd>
        <dt>Hours</dt>
        <dd>
          {task.hours} <i>h</i>
        </dd>
        {task.stands && (
          <>
            <dt>Stands</dt>
            <dd>{task.stands}</dd>
          </>
        )}
        {task.pin && (
          <>
            <dt>Promised</dt>
            <dd className={task.pinMissed ? styles.bad : undefined}>{task.pin}</dd>
          </>
        )}
        <dt>Waits for</dt>
        <dd>
          {task.waits.length === 0
            ? "nothing"
            : task.waits.map((w) => (
                <div key={w.after}>
                  {w.called}
                  {w.words && <small>{w.words}</small>}
                </div>
              ))}
        </dd>
        {task.then.length > 0 && (
          <>
            <dt>Then</dt>
            <dd>
              {task.then.map((t) => (
                <div key={t.task}>
                  {t.called}
                  <small>begins {t.begins}</small>
                </div>
              ))}
            </dd>
          </>
        )}
      </dl>
      <div className={styles.acts}>
        {task.isBegun ? (
          <p className="note">It has begun: hours are booked on it, and it keeps its start.</p>
        ) : (
          <>
            <Button variant="outlined" onClick={() => props.onStep(-1)}>
              A day earlier
            </Button>
            <Button variant="outlined" onClick={() => props.onStep(1)}>
              A day later
            </Button>
          </>
        )}
        <Button variant="outlined" onClick={props.onEdit}>
          Change
        </Button>
        {!task.isBegun && <Button onClick={props.onRemove}>Remove</Button>}
      </div>
    </section>
  );
}

/** A list of what would be, under its heading; nothing where it is empty. */
function Would({ heading, lines, bad }: { heading: string; lines: readonly string[]; bad?: boolean }) {
  if (lines.length === 0) return null;
  return (
    <>
      <h3>{heading}</h3>
      <ul className={bad ? styles.bad : undefined}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </>
  );
}

/** What moves, and from when to when. */
export function Moves({ moves, more }: { moves: readonly Schemas["ShiftView"][]; more?: string }) {
  return (
    <>
      <h3>
        Moves with it <span>{moves.length}</span>
      </h3>
      {moves.length === 0 ? (
        <p className="note">Nothing else.</p>
      ) : (
        <ul className={styles.moves}>
          {moves.map((m) => (
            <li key={m.called}>
              <span>{m.called}</span>
              <span>
                {m.was} → <b>{m.now}</b>
              </span>
            </li>
          ))}
        </ul>
      )}
      {more && <p className="note">{more}</p>}
    </>
  );
}

/** Promises that would be broken, and crews asked for too much. */
export function Troubles({ preview }: { preview: Preview }) {
  return (
    <>
      <Would heading="Promises it misses" lines={preview.pinsMissed} bad />
      <Would heading="Asked for too much" lines={preview.clashes} bad />
    </>
  );
}

/** Who would be told of what. */
function Tells({ tell }: { tell: readonly Schemas["TellView"][] }) {
  return (
    <ul className={styles.tells}>
      {tell.map((t) => (
        <li key={t.crew}>
          <b>{t.crew}</b> <small className={t.reached ? undefined : styles.bad}>{t.how}</small>
          {t.lines.map((line) => (
            <div key={line}>{line}</div>
          ))}
        </li>
      ))}
    </ul>
  );
}

/** A move before it is kept: what it pushes, what it breaks, and who gets told. */
export function MoveSheet(props: {
  preview: Preview;
  /** The task that is moved; none where one is removed, or change orders are taken over. */
  task: Task | undefined;
  follows: boolean;
  keep: (preview: Preview, told: boolean) => Promise<void>;
  onBack: () => void;
}) {
  const { preview, task } = props;
  const [wrong, tell] = useTold();
  const reached = preview.tell.filter((t) => t.reached).length;
  const does = task ? "Move" : props.follows ? "Take over" : "Remove";
  return (
    <section className={`panel ${styles.sheet}`} aria-label="Before it is moved">
      <header>
        <h2>{task ? task.called : props.follows ? "Take change orders over" : "Remove the task"}</h2>
      </header>
      {task && (
        <dl>
          <dt>Days</dt>
          <dd>
            <b>{preview.days}</b>
            {preview.says.map((says) => (
              <small key={says}>{says}</small>
            ))}
          </dd>
          <dt>Crew</dt>
          <dd>{task.crewName}</dd>
        </dl>
      )}
      <div className={styles.would}>
        {props.follows && <Would heading="What changes" lines={preview.says} />}
        <Moves moves={preview.moves} />
        <Troubles preview={preview} />
        {preview.tell.length > 0 && (
          <>
            <h3>Who gets told</h3>
            <Tells tell={preview.tell} />
          </>
        )}
      </div>
      {wrong && (
        <p className="error pad" role="alert">
          {wrong}
        </p>
      )}
      <div className={styles.acts}>
        {reached > 0 && (
          <Button variant="contained" onClick={() => tell(props.keep(preview, true))}>
            {does} and tell {reached}
          </Button>
        )}
        <Button
          variant={reached > 0 ? "outlined" : "contained"}
          disabled={preview.changes.length === 0}
          onClick={() => tell(props.keep(preview, false))}
        >
          {does} only
        </Button>
        <Button onClick={props.onBack}>Esc</Button>
      </div>
      <p className={styles.before}>Stand-in: notices stay in the outbox here.</p>
    </section>
  );
}

/** The work order of a crew for a day, as a PDF. */
function DayOrder({ days, job }: { days: readonly Schemas["CrewDay"][]; job: string }) {
  const key = (day: Schemas["CrewDay"]) => `crew=${day.crew}&day=${day.day}`;
  const [chosen, setChosen] = useState("");
  const of = days.find((day) => key(day) === chosen) ?? days[0];
  if (!of) return null;
  return (
    <section className={`panel ${styles.sheet}`} aria-label="Work order for a day">
      <header>
        <h2>Work order for a day</h2>
      </header>
      <div className={styles.acts}>
        <Choice
          bare
          label="Crew and day"
          value={key(of)}
          options={days.map((day) => [key(day), day.words] as const)}
          onChoose={setChosen}
        />
        <a className="act" href={`/api/jobs/${job}/deliver/schedule/work-order.pdf?${key(of)}`} download>
          PDF of the day
        </a>
      </div>
    </section>
  );
}

/** The schedule as a whole: its tasks as a list, clashes, who is to be told, what was told, and what goes out. */
export function ScheduleSheet(props: {
  data: Schemas["TasksView"];
  job: string;
  onChoose: (task: string) => void;
  onAdd: () => void;
  onLayOut: () => void;
  onFollow: () => void;
  onTell: () => Promise<void>;
}) {
  const { data, job } = props;
  const [wrong, tell] = useTold();
  const reached = data.tell.filter((t) => t.reached).length;
  return (
    <>
      <section className={`panel ${styles.sheet}`} aria-label="Tasks">
        <header>
          <h2>Tasks</h2>
          <button type="button" className="act" onClick={props.onAdd}>
            Add
          </button>
          <button type="button" className="act" onClick={props.onLayOut}>
            Lay out anew
          </button>
        </header>
        <ul className={styles.tasks}>
          {data.tasks.map((task) => (
            <li key={task.id}>
              <button type="button" className="link" onClick={() => props.onChoose(task.id)}>
                {task.called}
              </button>
              <small>
                {task.days} · {task.crewName}
                {task.stands && ` · ${task.stands}`}
              </small>
              {task.pinMissed && <small className={styles.bad}>promised {task.pin}</small>}
            </li>
          ))}
        </ul>
        {data.changed.length > 0 && (
          <div className={styles.would}>
            <Would heading="Change orders are not in it yet" lines={data.changed} />
            <Button variant="outlined" onClick={props.onFollow}>
              Take them over
            </Button>
          </div>
        )}
        {data.clashes.length > 0 && (
          <div className={styles.would}>
            <Would heading="Asked for too much" lines={data.clashes} bad />
          </div>
        )}
      </section>
      <section className={`panel ${styles.sheet}`} aria-label="Who gets told">
        <header>
          <h2>Who gets told</h2>
          <span className="note">{data.tell.length === 0 ? "everybody knows all of it" : "not told yet"}</span>
        </header>
        {data.tell.length > 0 && (
          <div className={styles.would}>
            <Tells tell={data.tell} />
          </div>
        )}
        {wrong && (
          <p className="error pad" role="alert">
            {wrong}
          </p>
        )}
        {data.tell.length > 0 && (
          <div className={styles.acts}>
            <Button variant="contained" onClick={() => tell(props.onTell())}>
              {reached > 0 ? `Tell ${reached}` : "Note that they know"}
            </Button>
          </div>
        )}
        <div className={styles.before}>
          {data.told.length > 0 && <b>Told before</b>}
          {data.told.map((told) => (
            <div key={told.at}>
              {told.at}
              {told.told.map((who) => (
                <small key={who}>{who}</small>
              ))}
            </div>
          ))}
          <div>Stand-in: notices stay in the outbox here.</div>
        </div>
        <div className={styles.acts}>
          <a className="act" href={`/api/jobs/${job}/deliver/schedule/calendar.ics`} download>
            Calendar file
          </a>
          <a className="act" href={`/api/jobs/${job}/deliver/schedule/schedule.xlsx`} download>
            Workbook
          </a>
        </div>
      </section>
      <DayOrder days={data.days} job={job} />
    </>
  );
}
