import { Button } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { askJob } from "../api/jobQueries";
import { useTold } from "../controls/useTold";
import { useJob } from "../job/JobContext";
import { LayOut } from "./LayOut";
import styles from "./schedule.module.css";
import { Strip } from "./Strip";
import { TaskDialog } from "./TaskDialog";
import { MoveSheet, ScheduleSheet, TaskSheet } from "./TaskSheet";

type Preview = Schemas["TaskPreview"];

/** What a task was moved by before it is kept. */
interface Moving {
  preview: Preview;
  /** Days of work from where it stands, as far as it went by keys. */
  by: number;
  focus: string | null;
  /** Whether it is what change orders did. */
  follows?: boolean;
}

/** The schedule: tasks on a strip of days, moved by drag and keys, what they push said before it happens. */
export function Schedule() {
  const [open, { job, happened }] = useJob();
  const queries = useQueryClient();
  const [strip, setStrip] = useState<Schemas["StripAsked"]>({ from: "", byCrew: false });
  const { data } = useQuery(askJob.tasks(job, strip));
  const [chosen, setChosen] = useState("");
  const [moving, setMoving] = useState<Moving | null>(null);
  const [dialog, setDialog] = useState<"layOut" | "add" | "edit" | null>(null);
  const [wrong, tell] = useTold();
  const again = useCallback(
    () => queries.invalidateQueries({ queryKey: ["deliver", job.id, "schedule"] }),
    [queries, job.id],
  );
  // What was ticked, booked or told elsewhere stands here, too.
  useEffect(() => void again(), [again, happened]);
  // What is only looked at is put back from anywhere.
  const looks = moving !== null && dialog === null;
  // An answer to what was asked before something else was done, or all was put back, comes too late.
  const turn = useRef(0);
  const look = (asked: Promise<Moving | null>) => {
    const mine = ++turn.current;
    tell(asked.then((now) => turn.current === mine && setMoving(now)));
  };
  const putBack = useCallback(() => {
    turn.current++;
    setMoving(null);
  }, []);
  useLayoutEffect(() => {
    if (!looks) return;
    const back = (e: KeyboardEvent) => e.key === "Escape" && putBack();
    addEventListener("keydown", back);
    return () => removeEventListener("keydown", back);
  }, [looks, putBack]);
  if (!data) return <div aria-busy="true" aria-label="Opening the schedule" />;
  const task = data.tasks.find((t) => t.id === chosen);
  const asked: Schemas["StripAsked"] = { ...strip, from: data.strip.from };
  const see = (from: string) => setStrip({ ...strip, from });
  const move = (id: string, to: { day: string; by: number }) =>
    look(
      change.moveTask(job.id, { strip: asked, task: id, ...to }).then((preview) => {
        setChosen(id);
        return to.day === "" && to.by === 0 ? null : { preview, by: to.by, focus: id };
      }),
    );
  const publish = async (version: number) => {
    await change.publishSchedule(job.id, { id: newId(), version });
    await again();
  };
  const keep = async (preview: Preview, told: boolean) => {
    await open.send({ type: "changeTasks", tasks: preview.changes });
    putBack();
    if (told) await publish(open.get().job.version);
    else await again();
  };
  const remove = (id: string) =>
    look(change.removeTask(job.id, { strip: asked, task: id }).then((preview) => ({ preview, by: 0, focus: null })));
  const follow = () =>
    look(
      change
        .followChanges(job.id, { strip: asked })
        .then((preview) => ({ preview, by: 0, focus: null, follows: true })),
    );
  const typing = { data, strip: asked, keep, onClose: () => setDialog(null) };
  const dialogs =
    dialog === "layOut" ? (
      <LayOut {...typing} />
    ) : dialog === "add" ? (
      <TaskDialog {...typing} />
    ) : dialog === "edit" && task ? (
      <TaskDialog {...typing} task={task} />
    ) : null;
  if (data.tasks.length === 0)
    return (
      <section className={`panel ${styles.nothing}`} aria-label="Nothing is planned yet">
        <h2>Nothing is planned yet</h2>
        <p>
          The work order is laid out as tasks: a section in a part of the building is one, with its hours divided by the
          crew that does it. What waits for other work, and for it to dry, follows it. Then they are moved, and those
          whom it concerns are told.
        </p>
        {data.crews.length === 0 ? (
          <p>
            Say first who works for you, and when: <Link to="/office/crews">Office, Crews</Link>.
          </p>
        ) : (
          <p>
            <Button variant="contained" onClick={() => setDialog("layOut")}>
              Lay it out
            </Button>{" "}
            <Button variant="outlined" onClick={() => setDialog("add")}>
              Add a task by hand
            </Button>
          </p>
        )}
        {dialogs}
      </section>
    );
  return (
    <div className={styles.columns}>
      <section className={`panel ${styles.board}`} aria-label="Schedule">
        <header>
          <h2>{data.strip.says}</h2>
          <span className="note">
            {data.says}
            {data.strip.outside && ` · ${data.strip.outside}`}
          </span>
          <span className={styles.weeks}>
            <button type="button" className="act" onClick={() => see(data.strip.earlier)}>
              Week before
            </button>
            <button type="button" className="act" onClick={() => see("")}>
              Now
            </button>
            <button type="button" className="act" onClick={() => see(data.strip.later)}>
              Week after
            </button>
          </span>
          <button
            type="button"
            className="act"
            aria-pressed={strip.byCrew}
            onClick={() => {
              putBack();
              setStrip({ from: data.strip.from, byCrew: !strip.byCrew });
            }}
          >
            By crew, all jobs
          </button>
        </header>
        {wrong && (
          <p className="error pad" role="alert">
            {wrong}
          </p>
        )}
        <Strip
          strip={moving ? moving.preview.strip : data.strip}
          chosen={chosen}
          focus={moving?.focus ?? null}
          onChoose={(id) => {
            if (moving && id !== moving.preview.task) putBack();
            setChosen(id);
          }}
          onStep={(id, by) => {
            const from = moving && moving.preview.task === id ? moving.by : 0;
            move(id, { day: "", by: from + by });
          }}
          onDrop={(id, day) => move(id, { day, by: 0 })}
          onBack={putBack}
        />
        <footer className={styles.legend}>
          <span>
            <i className={styles.planned} /> planned
          </span>
          <span>
            <i className={styles.done} /> done
          </span>
          <span>
            <i className={styles.dries} /> dries, nobody there
          </span>
          <span>
            <i className={styles.was} /> where it was
          </span>
          <span>
            <i className={styles.off} /> no work
          </span>
          <span>◆ promised</span>
          <span className={styles.keys}>
            Move a piece <kbd>Alt</kbd> <kbd>←</kbd> <kbd>→</kbd>
          </span>
        </footer>
      </section>
      <div className={styles.right}>
        {moving ? (
          <MoveSheet
            preview={moving.preview}
            task={data.tasks.find((t) => t.id === moving.preview.task)}
            follows={moving.follows ?? false}
            keep={keep}
            onBack={putBack}
          />
        ) : task ? (
          <TaskSheet
            task={task}
            onEdit={() => setDialog("edit")}
            onStep={(by) => move(task.id, { day: "", by })}
            onRemove={() => remove(task.id)}
            onClose={() => setChosen("")}
          />
        ) : (
          <ScheduleSheet
            data={data}
            job={job.id}
            onChoose={setChosen}
            onAdd={() => setDialog("add")}
            onLayOut={() => setDialog("layOut")}
            onFollow={follow}
            onTell={() => publish(job.version)}
          />
        )}
      </div>
      {dialogs}
    </div>
  );
}
