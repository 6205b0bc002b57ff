import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack } from "@mui/material";
import { Field } from "../figure/Field";
import { useJob } from "../job/JobContext";

const fields = [
  ["name", "Job"],
  ["subtitle", "In short"],
  ["customer", "Customer"],
  ["customerAddress", "Customer's address"],
  ["date", "Date of the proposal"],
] as const;

/** What the job is called and who it is for, as its documents say it; each field saves by itself. */
export function JobHeading({ open: shown, onClose }: { open: boolean; onClose: () => void }) {
  const [open, { job }] = useJob();
  return (
    <Dialog open={shown} onClose={onClose} aria-labelledby="heading-title" fullWidth maxWidth="xs">
      <DialogTitle id="heading-title">Job no. {job.info.number}</DialogTitle>
      <DialogContent>
        <Stack spacing={1.5}>
          {fields.map(([field, label]) => (
            <Field
              key={field}
              label={label}
              value={job.info[field]}
              onKeep={(text) => open.send({ type: "setInfo", field, was: job.info[field], now: text.trim() } as never)}
            />
          ))}
          <div className="field">
            <label htmlFor="job-units">Units of this job</label>
            <select
              id="job-units"
              value={job.units}
              onChange={(e) =>
                void open.tell({ type: "setUnits", was: job.units, units: e.target.value as typeof job.units })
              }
            >
              <option value="feet">feet and inches</option>
              <option value="metres">metres</option>
            </select>
            <span className="note">Only what is shown changes; sizes stay as they were measured.</span>
          </div>
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
