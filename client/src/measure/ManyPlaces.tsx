import { Button } from "@mui/material";
import { useId, useState } from "react";
import { useJob } from "../job/JobContext";

const fields = [
  { field: "height", label: "Height", like: { feet: "9'2", metres: "2.8" } },
  { field: "opening", label: "Add an opening", like: { feet: "door 3 x 6'8", metres: "door 0.91 x 2.03" } },
  { field: "finish", label: "Finish or substrate", like: { feet: "bare plaster", metres: "bare plaster" } },
  { field: "count", label: "Equal places", like: { feet: "2", metres: "2" } },
  { field: "group", label: "Heading", like: { feet: "House / First floor", metres: "House / First floor" } },
] as const;

/** What can be set for all the chosen places at once; one undo takes it back. */
export function ManyPlaces({ chosen }: { chosen: ReadonlySet<string> }) {
  const [open, { job }] = useJob();
  const [field, setField] = useState<(typeof fields)[number]["field"]>("height");
  const [value, setValue] = useState("");
  const [says, setSays] = useState<{ wrong: boolean; text: string }>({ wrong: false, text: "" });
  const id = useId();
  const places = job.places.filter((p) => chosen.has(p.id));
  const about = fields.find((f) => f.field === field)!;

  async function set() {
    try {
      if (field === "group")
        await open.send({
          type: "movePlaces",
          places: places.map((p) => ({ place: p.id, was: p.group })),
          group: value,
          before: null,
          after: null,
        });
      else
        await open.send({
          type: "editPlaces",
          places: places.map((p) => ({ place: p.id, was: field === "finish" ? p.finish : p.line })),
          field,
          value,
        });
      setSays({ wrong: false, text: `Set for ${places.length} places. Undo takes it back.` });
      setValue("");
    } catch (error) {
      setSays({ wrong: true, text: (error as Error).message });
    }
  }

  return (
    <form
      className="panel many"
      aria-label={`${places.length} places chosen`}
      onSubmit={(e) => {
        e.preventDefault();
        void set();
      }}
    >
      <b>{places.length} places chosen</b>
      <label htmlFor={`${id}field`}>Set</label>
      <select id={`${id}field`} value={field} onChange={(e) => setField(e.target.value as typeof field)}>
        {fields.map((f) => (
          <option key={f.field} value={f.field}>
            {f.label}
          </option>
        ))}
      </select>
      <label htmlFor={`${id}value`}>to</label>
      <input
        id={`${id}value`}
        value={value}
        autoComplete="off"
        placeholder={about.like[job.units]}
        aria-invalid={says.wrong}
        aria-describedby={`${id}says`}
        onChange={(e) => setValue(e.target.value)}
      />
      <Button type="submit" variant="contained" size="small">
        Set for all
      </Button>
      <span id={`${id}says`} role="status" className={says.wrong ? "error" : "note"}>
        {says.text}
      </span>
    </form>
  );
}
