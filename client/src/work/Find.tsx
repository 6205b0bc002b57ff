import { useRef, useState } from "react";
import { useJob } from "../job/JobContext";
import { has, placeWords, workWords } from "./layout";
import type { CellAt } from "./range";
import { Input } from "../controls/Input";
import styles from "./work.module.css";

/** Goes from one place, work item or sentence with the words typed to the next. Enter goes on, Shift Enter back, Esc into the grid. */
export function Find({ at, onGo }: { at: CellAt | null; onGo: (at: CellAt, focus: boolean) => void }) {
  const [, { job, cells }] = useJob();
  const [words, setWords] = useState("");
  const [said, setSaid] = useState("");
  const last = useRef(-1);

  function go(step: 1 | -1) {
    if (words.trim() === "" || !at) return;
    const found: CellAt[] = [
      ...job.places.filter((p) => has(placeWords(p), words)).map((p) => ({ ...at, place: p.id })),
      ...job.work.filter((w) => has(workWords(w), words)).map((w) => ({ ...at, work: w.id })),
      ...job.work.flatMap((w) =>
        job.places
          .filter((p) => has(cells.get(`${w.id}/${p.id}`)?.note ?? "", words))
          .map((p) => ({ work: w.id, place: p.id })),
      ),
    ];
    if (found.length === 0) return setSaid("not found");
    last.current = (last.current + step + found.length) % found.length;
    setSaid(`${last.current + 1} of ${found.length}`);
    onGo(found[last.current]!, false);
  }

  return (
    <span className={styles.finder} role="search">
      <Input
        bare
        type="search"
        placeholder="Find"
        label="Find a place, work or a sentence"
        value={words}
        onType={(text) => {
          last.current = -1;
          setSaid("");
          setWords(text);
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter") go(e.shiftKey ? -1 : 1);
          else if (e.key !== "Escape") return;
          else if (at) onGo(at, true);
          e.preventDefault();
        }}
      />
      <span className="note" role="status">
        {said}
      </span>
    </span>
  );
}
