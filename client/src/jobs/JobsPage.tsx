import { Button, Dialog, DialogActions, DialogContent, DialogTitle, MenuItem, Stack, TextField } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { type Refused, api, newId, refusal } from "../api/client";
import { ask } from "../api/queries";

/** All jobs; find by anything typed. */
export function JobsPage() {
  const [find, setFind] = useState("");
  const [adding, setAdding] = useState(false);
  const [wrong, setWrong] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const { data: jobs, error } = useQuery({
    queryKey: ["jobs"],
    queryFn: async () => (await api.GET("/api/jobs")).data!,
  });
  const needle = find.trim().toLowerCase();
  const shown = jobs?.filter((j) => `${j.number} ${j.name} ${j.customer}`.toLowerCase().includes(needle));

  async function takeIn(chosen: File) {
    setWrong("");
    try {
      const response = await fetch("/api/jobs/import", {
        method: "POST",
        body: chosen,
        headers: { "content-type": "application/json" },
      });
      if (!response.ok) throw await refusal(response);
      const { id } = (await response.json()) as { id: string };
      void navigate(`/jobs/${id}/measure`);
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  return (
    <main className="page">
      <Stack direction="row" spacing={1.5} sx={{ alignItems: "center", mb: 2 }}>
        <h1 style={{ fontSize: 19, marginRight: "auto" }}>Jobs</h1>
        <TextField label="Find a job" value={find} onChange={(e) => setFind(e.target.value)} sx={{ width: 280 }} />
        <Button variant="outlined" onClick={() => file.current!.click()}>
          Take in a job file
        </Button>
        <Button variant="contained" onClick={() => setAdding(true)}>
          New job
        </Button>
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label="Job file"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            e.target.value = "";
            if (chosen) void takeIn(chosen);
          }}
        />
      </Stack>
      {(wrong || error) && (
        <p className="error" role="alert">
          {wrong || error?.message}
        </p>
      )}
      <div className="panel">
        <table className="list">
          <thead>
            <tr>
              <th>No.</th>
              <th>Job</th>
              <th>Customer</th>
              <th>At a glance</th>
              <th className="n">Changed</th>
            </tr>
          </thead>
          <tbody>
            {shown?.map((job) => (
              <tr key={job.id}>
                <td>{job.number}</td>
                <td>
                  <Link to={`/jobs/${job.id}/measure`} style={{ fontWeight: 600 }}>
                    {job.name}
                  </Link>
                </td>
                <td>{job.customer}</td>
                <td>{job.summary}</td>
                <td className="n">
                  {new Date(job.changed).toLocaleString("en", { dateStyle: "medium", timeStyle: "short" })}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {shown?.length === 0 && (
          <p className="note" style={{ padding: "4px 14px" }}>
            {jobs?.length === 0
              ? "No jobs yet. Make the first with “New job”."
              : "No job has that in its number, name or customer."}
          </p>
        )}
      </div>
      {adding && <NewJob onClose={() => setAdding(false)} />}
    </main>
  );
}

function NewJob({ onClose }: { onClose: () => void }) {
  const [id] = useState(newId);
  const [name, setName] = useState("");
  const [subtitle, setSubtitle] = useState("");
  const [customer, setCustomer] = useState("");
  const [units, setUnits] = useState<"feet" | "metres">("feet");
  const [wrong, setWrong] = useState<Refused | null>(null);
  const navigate = useNavigate();
  const { data: customers } = useQuery(ask.customers);

  async function make() {
    try {
      await api.POST("/api/jobs", { body: { id, name, subtitle, customer: customer || null, units } });
      void navigate(`/jobs/${id}/measure`);
    } catch (error) {
      setWrong(error as Refused);
    }
  }

  return (
    <Dialog open onClose={onClose} aria-labelledby="new-job" fullWidth maxWidth="xs">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <DialogTitle id="new-job">New job</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <TextField
              label="Job"
              autoFocus
              value={name}
              onChange={(e) => setName(e.target.value)}
              error={wrong?.field === "name"}
              helperText={wrong?.field === "name" ? wrong.message : "As the customer will read it"}
            />
            <TextField
              label="In short"
              value={subtitle}
              onChange={(e) => setSubtitle(e.target.value)}
              helperText="For instance: repaint, ground floor"
            />
            <TextField
              select
              label="Customer"
              value={customer}
              onChange={(e) => setCustomer(e.target.value)}
              helperText="Customers are added on their own page"
            >
              <MenuItem value="">none yet</MenuItem>
              {customers?.map((c) => (
                <MenuItem key={c.id} value={c.id}>
                  {c.name}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              select
              label="Measured in"
              value={units}
              onChange={(e) => setUnits(e.target.value as "feet" | "metres")}
            >
              <MenuItem value="feet">feet and inches</MenuItem>
              <MenuItem value="metres">metres</MenuItem>
            </TextField>
            {wrong && wrong.field !== "name" && (
              <p className="error" role="alert">
                {wrong.message}
              </p>
            )}
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Make the job
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
