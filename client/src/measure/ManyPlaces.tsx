import { Button } from "@mui/material";
import { useId, useState } from "react";
import { useJob } from "../job/JobContext";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import styles from "./measure.module.css";

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
      className={`panel ${styles.many}`}
      aria-label={`${places.length} places chosen`}
      onSubmit={(e) => {
        e.preventDefault();
        void set();
      }}
    >
      <b>{places.length} places chosen</b>
      <Choice label="Set" value={field} options={fields.map((f) => [f.field, f.label])} onChoose={setField} />
      <Input label="to" value={value} placeholder={about.like[job.units]} onType={setValue} />
      <Button type="submit" variant="contained" size="small">
        Set for all
      </Button>
      <span id={`${id}says`} role="status" className={says.wrong ? "error" : "note"}>
        {says.text}
      </span>
    </form>
  );
}
