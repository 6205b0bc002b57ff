import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Link, useNavigate } from "react-router";
import { ask } from "../api/queries";
import { FileAct } from "../controls/FileAct";
import { Input } from "../controls/Input";
import { PageHead } from "../shell/PageHead";
import { change } from "../api/changes";

const NewJob = lazy(() => import("./NewJob").then((file) => ({ default: file.NewJob })));

/** All jobs; find by anything typed. */
export function JobsPage() {
  const [find, setFind] = useState("");
  const [adding, setAdding] = useState(false);
  const [wrong, setWrong] = useState("");
  const navigate = useNavigate();
  const { data: jobs, error } = useQuery(ask.jobs);
  const needle = find.trim().toLowerCase();
  const shown = jobs?.filter((j) => `${j.number} ${j.name} ${j.customer}`.toLowerCase().includes(needle));

  async function takeIn(chosen: File) {
    setWrong("");
    try {
      const { id } = await change.takeInJob(chosen);
      void navigate(`/jobs/${id}/measure`);
    } catch (error) {
      setWrong((error as Error).message);
    }
  }

  return (
    <main className="page">
      <PageHead title="Jobs">
        <Input bare type="search" label="Find a job" placeholder="Find a job" value={find} onType={setFind} />
        <FileAct
          words="Take in a job file"
          label="Job file"
          accept=".json,application/json"
          onFile={(chosen) => void takeIn(chosen)}
        />
        <Button variant="contained" onClick={() => setAdding(true)}>
          New job
        </Button>
      </PageHead>
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
      {adding && (
        <Suspense>
          <NewJob onClose={() => setAdding(false)} />
        </Suspense>
      )}
    </main>
  );
}
