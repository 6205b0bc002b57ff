import { counted } from "../controls/counted";
import { useMemo, useState } from "react";
import type { Work } from "../api/client";
import { useJob } from "../job/JobContext";
import type { Edit } from "../job/openJob";
import { Ask } from "../controls/Ask";
import { Preview } from "./Preview";
import { type CellAt, seen } from "./range";
import { Radios } from "../controls/Radios";
import { Check } from "../controls/Check";

/** A cell as it is, in every place that shares its floor, finish or heading; what it would move is shown first. */
export function ApplyTo({ at, item, onClose }: { at: CellAt; item: Work; onClose: () => void }) {
  const [open, { job, cells }] = useJob();
  const place = job.places.find((p) => p.id === at.place)!;
  const ways = useMemo(() => {
    const others = job.places.filter((p) => p.id !== at.place);
    const all: { words: string; places: string[] }[] = [];
    const steps = place.group.split(" / ").filter(Boolean);
    for (let n = steps.length; n > 0; n--) {
      const heading = steps.slice(0, n).join(" / ");
      all.push({
        words: `under ${heading}`,
        places: others.filter((p) => p.group === heading || p.group.startsWith(heading + " / ")).map((p) => p.id),
      });
    }
    if (place.finish)
      all.push({
        words: `with the finish “${place.finish}”`,
        places: others.filter((p) => p.finish.toLowerCase() === place.finish.toLowerCase()).map((p) => p.id),
      });
    all.push({ words: "of the job", places: others.map((p) => p.id) });
    return all;
  }, [at.place, job.places, place]);
  const [way, setWay] = useState(0);
  const [everywhere, setEverywhere] = useState(true);
  const places = ways[way]!.places.filter((p) => everywhere || cells.has(`${at.work}/${p}`));
  const edit: Edit | null =
    places.length === 0
      ? null
      : {
          type: "copyCells",
          fromWork: [at.work],
          fromPlaces: [at.place],
          work: [at.work],
          places,
          was: seen([at.work], places, cells),
        };
  return (
    <Ask
      title={`${item.section}: ${item.name} as in ${place.name}`}
      apply={`Apply to ${counted(places.length, "place")}`}
      ready={edit !== null}
      onApply={() => open.send(edit!)}
      onClose={onClose}
    >
      <Radios
        label="In every other place"
        value={String(way)}
        options={ways.map((w, i) => ({ value: String(i), words: `${w.words} (${w.places.length})` }))}
        onChoose={(now) => setWay(Number(now))}
      />
      <Check on={everywhere} onTick={setEverywhere}>
        also where nothing is said of this work yet
      </Check>
      {edit ? <Preview edit={edit} /> : <p className="note">No such place.</p>}
    </Ask>
  );
}
