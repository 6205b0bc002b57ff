import { Dialog, DialogContent, DialogTitle } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, newId } from "../api/client";
import { useJob } from "../job/JobContext";

/** Work from the Book: type to find, Enter or click adds it. */
export function AddWork({ onClose }: { onClose: () => void }) {
  const [open, { job }] = useJob();
  const [find, setFind] = useState("");
  const [at, setAt] = useState(0);
  const { data: entries } = useQuery({
    queryKey: ["book"],
    queryFn: async () => (await api.GET("/api/book/work")).data!,
  });
  const needle = find.trim().toLowerCase();
  const words = needle.split(/\s+/);
  const heading = (e: { section: string; name: string }) => `${e.section} ${e.name}`.toLowerCase();
  const found =
    entries?.filter((e) => words.every((w) => `${heading(e)} ${e.wording.toLowerCase()}`.includes(w))) ?? [];
  // What begins with the words first, then what has them in its name.
  const rank = (e: { section: string; name: string }) =>
    heading(e).startsWith(needle) || e.name.toLowerCase().startsWith(needle)
      ? 0
      : words.every((w) => heading(e).includes(w))
        ? 1
        : 2;
  const shown = [0, 1, 2].flatMap((r) => found.filter((e) => rank(e) === r)).slice(0, 100);
  const current = Math.min(at, shown.length - 1);

  const [added, setAdded] = useState<string | null>(null);
  const offered = entries
    ?.find((e) => e.id === added)
    ?.accessories.filter((a) => !job.work.some((w) => w.entry === a.id));

  function add(entry: string) {
    setAdded(entry);
    const section = entries!.find((e) => e.id === entry)!.section;
    const last = job.work.filter((w) => w.section === section).at(-1);
    void open.tell({ type: "addWork", work: newId(), entry, after: last?.id ?? null });
  }

  return (
    <Dialog open onClose={onClose} aria-labelledby="add-work" fullWidth maxWidth="sm">
      <DialogTitle id="add-work">Add work from the Book</DialogTitle>
      <DialogContent>
        <input
          className="find"
          autoFocus
          placeholder="Type to find"
          aria-label="Find in the Book"
          value={find}
          onChange={(e) => {
            setFind(e.target.value);
            setAt(0);
          }}
          onKeyDown={(e) => {
            if (e.key === "ArrowDown") setAt(Math.min(current + 1, shown.length - 1));
            else if (e.key === "ArrowUp") setAt(Math.max(current - 1, 0));
            else if (e.key === "Enter" && shown[current]) add(shown[current].id);
            else return;
            e.preventDefault();
          }}
        />
        {offered && offered.length > 0 && (
          <p className="offered" role="status">
            Usually goes with it:{" "}
            {offered.map((a) => (
              <button key={a.id} className="act" onClick={() => add(a.id)}>
                Add {a.name}
              </button>
            ))}
          </p>
        )}
        <ul className="entries" aria-label="Entries">
          {shown.map((entry, i) => (
            <li key={entry.id} className={i === current ? "current" : undefined}>
              <button onClick={() => add(entry.id)} aria-label={`Add ${entry.section}: ${entry.name}`}>
                <span>
                  <b>
                    {entry.section}: {entry.name}
                  </b>
                  <small>{entry.wording}</small>
                </span>
                <small>{job.work.some((w) => w.entry === entry.id) ? "in this job" : entry.pace}</small>
              </button>
            </li>
          ))}
        </ul>
        {entries && shown.length === 0 && <p className="note">Nothing in the Book has that.</p>}
        <p className="note">
          <span className="kbd">Enter</span> adds, <span className="kbd">Esc</span> closes
        </p>
      </DialogContent>
    </Dialog>
  );
}
