import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { newId } from "../api/client";
import { toggled } from "../controls/toggled";
import { ask } from "../api/queries";
import { useJob } from "../job/JobContext";
import { Check } from "../controls/Check";
import { counted } from "../controls/counted";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import styles from "./measure.module.css";
import { Ask } from "../controls/Ask";

/** Picks and counts places from the firm's lists; their usual work comes with them. They are measured afterwards, one by one. */
export function UsualPlacesDialog({ group: start, onClose }: { group: string; onClose: () => void }) {
  const [open, { job }] = useJob();
  const [listName, setList] = useState("");
  const [counts, setCounts] = useState<Record<string, string>>({});
  const [group, setGroup] = useState(start);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const { data: lists } = useQuery(ask.usualPlaces);
  const { data: book } = useQuery(ask.bookWork);
  const list = lists?.find((l) => l.name === listName) ?? lists?.[0];
  const named = (id: string) => {
    const entry = book?.find((b) => b.id === id);
    return entry && `${entry.section}: ${entry.name}`;
  };
  const words = (work: readonly string[]) => work.flatMap((id) => named(id) ?? []).join(", ");
  const usual = [...new Set((list?.places ?? []).flatMap((p) => p.work))].filter(named);
  const wanted = (list?.places ?? []).map((p) => ({
    ...p,
    work: p.work.filter((id) => !without.has(id)),
    count: Math.min(200, parseInt(counts[p.name] ?? "", 10) || 0),
  }));
  const many = wanted.reduce((sum, p) => sum + p.count, 0);

  function add() {
    const taken = new Set(job.places.filter((p) => p.group === group.trim()).map((p) => p.name));
    const places = wanted.flatMap((p) => {
      const names: string[] = [];
      for (let n = 1; names.length < p.count; n++) {
        const name = p.count === 1 && n === 1 ? p.name : `${p.name} ${n}`;
        if (!taken.has(name)) names.push(name);
        taken.add(name);
      }
      return names.map((name) => ({
        place: newId(),
        line: `${name}: not measured`,
        group,
        finish: "",
        notes: "",
        typed: [],
        work: p.work,
      }));
    });
    const entries = new Set(places.flatMap((p) => p.work));
    return open.send({ type: "addPlaces", places, work: [...entries].map((entry) => ({ entry, work: newId() })) });
  }

  return (
    <Ask
      title="Usual places"
      apply={`Add ${counted(many, "place")}`}
      busy="Adding…"
      ready={many > 0}
      width="md"
      className={styles.usual}
      onApply={add}
      onClose={onClose}
    >
      <div className="two">
        <Choice
          label="Kind of building"
          value={list?.name ?? ""}
          options={(lists ?? []).map((l) => [l.name, l.name, l.trade || "Any trade"])}
          onChoose={setList}
        />
        <Input label="Put them under" value={group} placeholder="heading" onType={setGroup} />
      </div>
      {usual.length > 0 && (
        <fieldset className={styles.with}>
          <legend>Work that comes with them</legend>
          {usual.map((id) => (
            <Check key={id} on={!without.has(id)} onTick={(on) => setWithout(toggled(without, id, !on))}>
              {named(id)}
            </Check>
          ))}
        </fieldset>
      )}
      <table className="list">
        <thead>
          <tr>
            <th>How many</th>
            <th>Place</th>
            <th>Usual work</th>
          </tr>
        </thead>
        <tbody>
          {wanted.map((p) => (
            <tr key={p.name}>
              <td>
                <Input
                  bare
                  type="number"
                  min={0}
                  max={200}
                  label={`How many: ${p.name}`}
                  value={counts[p.name] ?? ""}
                  placeholder="0"
                  onType={(count) => setCounts({ ...counts, [p.name]: count })}
                />
              </td>
              <td>{p.name}</td>
              <td className="note">{words(p.work) || "none marked"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="note">
        They come in unmeasured, with this work included. The firm changes these lists in the{" "}
        <Link to="/office">Office</Link>.
      </p>
    </Ask>
  );
}
