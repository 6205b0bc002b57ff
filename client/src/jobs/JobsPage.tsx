import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { Schemas } from "../api/client";
import { ask } from "../api/queries";
import { Choice } from "../controls/Choice";
import { counted } from "../controls/counted";
import { FileAct } from "../controls/FileAct";
import { Input } from "../controls/Input";
import { useStay } from "../controls/useStay";
import { type Order, SortedHead, inOrder } from "../controls/Sorted";
import { inWords } from "../figure/FigureText";
import { PageHead } from "../shell/PageHead";
import { change } from "../api/changes";
import styles from "./jobs.module.css";

const NewJob = lazy(() => import("./NewJob").then((file) => ({ default: file.NewJob })));

type Job = Schemas["JobListView"];

/** What each column is put in order by. */
const values: Record<string, (job: Job) => string | number | null> = {
  number: (job) => job.number,
  name: (job) => job.name,
  customer: (job) => job.customer || null,
  state: (job) => job.state,
  places: (job) => job.places,
  hours: (job) => (job.hours ? Number(job.hours.value) : null),
  price: (job) => (job.price ? Number(job.price.value) : null),
  margin: (job) => (job.margin ? Number(job.margin.value) : null),
  changed: (job) => job.changed,
};

const periods = [
  ["1", "in the last day"],
  ["7", "in the last 7 days"],
  ["30", "in the last 30 days"],
] as const;

/** All jobs: found by anything typed, by customer, by when they were changed; in order by any column. */
export function JobsPage() {
  const [find, setFind] = useState("");
  const [adding, setAdding] = useState(false);
  const [opened] = useState(() => Date.now());
  const [wrong, setWrong] = useState("");
  const navigate = useNavigate();
  const stay = useStay();
  // What the list is narrowed to and how it is in order stands in the address: going back finds it as it was.
  const [search, setSearch] = useSearchParams();
  const asked = (name: string) => search.get(name) ?? "";
  const narrow = (changes: Record<string, string>) =>
    setSearch(
      (was) => {
        for (const [name, value] of Object.entries(changes)) {
          if (value) was.set(name, value);
          else was.delete(name);
        }
        return was;
      },
      { replace: true },
    );
  const order: Order = asked("by") ? { by: asked("by"), down: asked("down") === "yes" } : { by: "changed", down: true };
  const onOrder = ({ by, down }: Order) => narrow({ by, down: down ? "yes" : "" });
  const { data: jobs, error } = useQuery(ask.jobs);
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const customers = [...new Set(jobs?.map((j) => j.customer).filter(Boolean))].toSorted();
  const since = asked("within") && new Date(opened - Number(asked("within")) * 86_400_000).toISOString();
  const shown = inOrder(
    (jobs ?? []).filter(
      (j) =>
        words.every((w) => `${j.number} ${j.name} ${j.customer} ${j.state}`.toLowerCase().includes(w)) &&
        (!asked("customer") || j.customer === asked("customer")) &&
        (!since || j.changed >= since) &&
        (asked("margin") !== "below" || j.belowFloor),
    ),
    order,
    values[order.by] ?? values.changed!,
  );

  async function takeIn(chosen: File) {
    setWrong("");
    const still = stay();
    try {
      const { id } = await change.takeInJob(chosen);
      if (still()) void navigate(`/jobs/${id}/measure`);
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
          onFiles={([chosen]) => void takeIn(chosen!)}
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
      {jobs && jobs.length > 0 && (
        <div className={styles.narrow} role="group" aria-label="Which jobs">
          <Choice
            label="Customer"
            value={asked("customer")}
            none="all"
            options={customers.map((c) => [c, c] as const)}
            onChoose={(customer) => narrow({ customer })}
          />
          <Choice
            label="Changed"
            value={asked("within")}
            none="at any time"
            options={periods}
            onChoose={(within) => narrow({ within })}
          />
          <Choice
            label="Margin"
            value={asked("margin")}
            none="any"
            options={[["below", "below the floor"]]}
            onChoose={(margin) => narrow({ margin })}
          />
          <span className="note" role="status">
            {shown.length === jobs.length
              ? counted(jobs.length, "job")
              : `${shown.length} of ${counted(jobs.length, "job")}`}
          </span>
        </div>
      )}
      <div className="panel">
        <table className="list" aria-label="Jobs">
          <thead>
            <tr>
              <SortedHead by="number" order={order} onOrder={onOrder}>
                No.
              </SortedHead>
              <SortedHead by="name" order={order} onOrder={onOrder}>
                Job
              </SortedHead>
              <SortedHead by="customer" order={order} onOrder={onOrder}>
                Customer
              </SortedHead>
              <SortedHead by="state" order={order} onOrder={onOrder}>
                State
              </SortedHead>
              <SortedHead by="places" order={order} onOrder={onOrder} largestFirst n>
                Places
              </SortedHead>
              <SortedHead by="hours" order={order} onOrder={onOrder} largestFirst n>
                Hours
              </SortedHead>
              <SortedHead by="price" order={order} onOrder={onOrder} largestFirst n>
                Price before tax
              </SortedHead>
              <SortedHead by="margin" order={order} onOrder={onOrder} n>
                Margin
              </SortedHead>
              <SortedHead by="changed" order={order} onOrder={onOrder} largestFirst n>
                Changed
              </SortedHead>
            </tr>
          </thead>
          <tbody>
            {shown.map((job) => (
              <tr key={job.id}>
                <td>{job.number}</td>
                <td>
                  <Link to={`/jobs/${job.id}/measure`} style={{ fontWeight: 600 }}>
                    {job.name}
                  </Link>
                </td>
                <td>{job.customer}</td>
                <td className={styles.state}>{job.state}</td>
                <td className="n">{job.places ?? "—"}</td>
                <td className="n">{said(job.hours)}</td>
                <td className="n">{said(job.price)}</td>
                <td className={job.belowFloor ? `n ${styles.below}` : "n"}>
                  {said(job.margin)}
                  {job.belowFloor && <small>below the floor</small>}
                </td>
                <td className="n">
                  {new Date(job.changed).toLocaleString("en", { dateStyle: "medium", timeStyle: "short" })}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {jobs && shown.length === 0 && (
          <p className="note" style={{ padding: "4px 14px" }}>
            {jobs.length === 0
              ? "No jobs yet. Make the first with “New job”."
              : words.length > 0
                ? "No job has that in its number, name, customer or state."
                : "No job is like that."}
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

const said = (figure: Job["hours"]) => (figure ? inWords(figure) : "—");
