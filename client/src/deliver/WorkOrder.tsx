import { useState } from "react";
import { newId, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { useKept } from "../job/useKept";
import { Completion } from "./Completion";
import { CrewLinks } from "./CrewLinks";
import styles from "./deliver.module.css";
import { OrderRest } from "./OrderRest";
import { useDeliver } from "./useDeliver";

type Line = Schemas["OrderLineView"];
type Group = Schemas["OrderGroupView"];
type Shown = Omit<Group, "lines"> & { lines: readonly Line[] };

const keys = (lines: readonly Line[]) => lines.map(({ work, place }) => ({ work, place }));

/** What the crew reads, with what is done. */
export function WorkOrder({ data, order }: { data: Schemas["DeliverView"]; order: Schemas["OrderView"] }) {
  const { job, did, act, wrong } = useDeliver();
  const [by, setBy] = useKept<"place" | "section">(job.id, "deliver/by", "place");
  const [section, setSection] = useState("");
  const [part, setPart] = useState<Line | null>(null);
  const mark = (lines: readonly Line[], percent: string) =>
    change.markDone(job.id, { id: newId(), lines: keys(lines), percent });
  const groups = by === "place" ? order.byPlace : order.bySection;
  const shown = groups
    .map((g) => ({
      ...g,
      lines: g.lines.map((at) => order.lines[at]!).filter((l) => section === "" || l.section === section),
    }))
    .filter((g) => g.lines.length > 0);
  const pdf = `/api/jobs/${job.id}/deliver/work-order.pdf?bySection=${by === "section"}&section=${encodeURIComponent(section)}`;
  return (
    <div className={styles.columns}>
      <section className={`panel ${styles.order}`} aria-label="Work order">
        <header>
          <h2>{order.title}</h2>
          <span className="note">
            {order.hours} allowed, {order.planned}
          </span>
          <a className="act" href={pdf} download>
            PDF
          </a>
        </header>
        <div className={styles.tools}>
          <Choice
            row
            label="Stands by"
            value={by}
            options={[
              ["place", "place"],
              ["section", "section"],
            ]}
            onChoose={setBy}
          />
          <Choice
            row
            label="Only"
            value={section}
            none="all sections"
            options={data.sections.filter((s) => s !== "").map((s) => [s, s] as const)}
            onChoose={setSection}
          />
          {wrong && (
            <span className="error" role="alert">
              {wrong}
            </span>
          )}
        </div>
        {shown.map((group, i) => (
          <OrderGroup
            key={`${group.heading}/${group.name}`}
            group={group}
            by={by}
            heading={i === 0 || shown[i - 1]!.heading !== group.heading ? group.heading : ""}
            onMark={(lines, percent) => void act(mark(lines, percent))}
            onPart={setPart}
          />
        ))}
        <OrderRest order={order} />
      </section>
      <div className={styles.right}>
        <Progress order={order} groups={groups} />
        <CrewLinks data={data} />
        <Completion />
      </div>
      {part && <HowMuch line={part} onMark={(percent) => did(mark([part], percent))} onClose={() => setPart(null)} />}
    </div>
  );
}

interface GroupProps {
  group: Shown;
  by: "place" | "section";
  heading: string;
  onMark: (lines: readonly Line[], percent: string) => void;
  onPart: (line: Line) => void;
}

function OrderGroup({ group, by, heading, onMark, onPart }: GroupProps) {
  const open = group.lines.filter((l) => l.ticks && !l.done);
  return (
    <section className={styles.group} aria-label={group.name}>
      {heading && <h3 className={styles.heading}>{heading}</h3>}
      <header>
        <h4>{group.name}</h4>
        <span className="note">{group.says}</span>
        {open.length > 1 && (
          <button
            type="button"
            className="link"
            aria-label={`All of ${group.name} is done`}
            onClick={() => onMark(open, "100")}
          >
            all done
          </button>
        )}
        <b>{group.hours}</b>
      </header>
      <ul>
        {group.lines.map((line) => (
          <li key={line.work + line.place} className={line.done ? styles.done : undefined}>
            {line.ticks ? (
              <Check
                name={`${line.name}, ${line.at}: done`}
                on={line.done}
                half={line.begun}
                onTick={(on) => onMark([line], on ? "100" : "0")}
              />
            ) : (
              <i className={styles.often}>{line.often}</i>
            )}
            <div>
              <p className={styles.name}>
                {by === "place" ? (
                  <>
                    {line.name} <small>{line.section}</small>
                  </>
                ) : (
                  <>
                    {line.at} <small>{line.name}</small>
                  </>
                )}
              </p>
              <p className="note">
                {[line.goods.join("; "), line.supply, line.facts.join(", "), line.notes.join(" ")]
                  .filter(Boolean)
                  .join(" · ")}
              </p>
              {line.said && (
                <p className={styles.said}>
                  {line.done ? "done" : line.begun ? `${line.percent} % done` : "not done"}: {line.said}
                </p>
              )}
            </div>
            <span className={styles.n}>{line.amount}</span>
            <span className={styles.n}>{line.hours}</span>
            {line.ticks ? (
              <button
                type="button"
                className="link"
                aria-label={`How much of ${line.name}, ${line.at}, is done`}
                onClick={() => onPart(line)}
              >
                {line.begun ? `${line.percent} %` : "part"}
              </button>
            ) : (
              <span />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How much of a line is done, where it is neither nothing nor all. */
function HowMuch(props: { line: Line; onMark: (percent: string) => Promise<unknown>; onClose: () => void }) {
  const { line } = props;
  const [percent, setPercent] = useState(line.percent);
  const [wrong, setWrong] = useState("");
  return (
    <Ask
      title={`${line.name}, ${line.at}`}
      apply="Keep it"
      width="xs"
      ready={/^\d{1,3}(\.\d{1,2})?$/.test(percent.trim())}
      onApply={() => props.onMark(percent.trim())}
      onRefused={(error) => {
        setWrong(error.message);
        return true;
      }}
      onClose={props.onClose}
    >
      <Input
        label="So much of it is done"
        unit="%"
        inputMode="decimal"
        focus
        value={percent}
        wrong={wrong}
        hint={line.amount && `of ${line.amount}`}
        onType={setPercent}
      />
    </Ask>
  );
}

/** How far the job is, along a tape. */
function Progress({ order, groups }: { order: Schemas["OrderView"]; groups: readonly Group[] }) {
  return (
    <section className="panel" aria-label="How far it is">
      <header>
        <h2>How far it is</h2>
        <span className="note">{order.percent && `${order.percent} by hours allowed`}</span>
      </header>
      <ul className={styles.far}>
        {groups.map((group) => (
          <li key={`${group.heading}/${group.name}`}>
            <span>{group.name}</span>
            <i className="note">{group.says}</i>
          </li>
        ))}
      </ul>
    </section>
  );
}
