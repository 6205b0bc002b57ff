import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { type Refused, type Schemas, api, newId } from "../api/client";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { TableUpload } from "./TableUpload";
import "./measure.css";

/** The customer's schedule of quantities beside our own takeoff; rows that are more than 1 % apart are flagged. */
export function SchedulePage() {
  const [open, { job, answers }] = useJob();
  const [bringing, setBringing] = useState(false);
  const [only, setOnly] = useState(false);
  const { data } = useQuery({
    queryKey: ["schedule", job.id, answers],
    queryFn: async () => (await api.GET("/api/jobs/{id}/schedule", { params: { path: { id: job.id } } })).data!,
    placeholderData: (kept) => kept,
  });
  const rows = data?.rows.filter((r) => !only || r.apart || !r.ours) ?? [];
  return (
    <section className="panel schedule" aria-label="Schedule of quantities">
      <header>
        <h2>Schedule of quantities</h2>
        <span className="note" role="status">
          {data && data.rows.length > 0 && `${data.rows.length} rows · ${data.apart} apart · ${data.open} not compared`}
        </span>
        {data && data.rows.length > 0 && (
          <>
            <label className="leaveout">
              <input type="checkbox" checked={only} onChange={(e) => setOnly(e.target.checked)} /> only what needs a
              look
            </label>
            <button className="link" onClick={() => void open.tell({ type: "removeSchedule" })}>
              Take the schedule out
            </button>
          </>
        )}
        <button className="link" onClick={() => setBringing(!bringing)}>
          Bring in a table
        </button>
        <Link to={`/jobs/${job.id}/measure`}>Back to the places</Link>
      </header>
      {bringing && <BringInSchedule onDone={() => setBringing(false)} />}
      {data && data.rows.length === 0 && !bringing && (
        <div className="empty">
          <h2>No schedule yet</h2>
          <p>
            When a customer sends a schedule (number, wording, unit, quantity), bring it in here. Each row is held
            against something we measured or work; what differs by more than 1 % is flagged.
          </p>
          <Button variant="contained" onClick={() => setBringing(true)}>
            Bring in a table
          </Button>
        </div>
      )}
      {rows.length > 0 && (
        <div className="scroll">
          <table className="list">
            <thead>
              <tr>
                <th>Number</th>
                <th>Wording</th>
                <th className="n">Theirs</th>
                <th>Compared with</th>
                <th className="n">Ours</th>
                <th className="n">Difference</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.id} className={r.apart ? "apart" : undefined}>
                  <td>{r.number}</td>
                  <td>{r.wording}</td>
                  <td className="n">
                    {r.quantity} <i>{r.unit}</i>
                  </td>
                  <td>
                    {r.sources.length === 0 ? (
                      <span className="note">nothing of ours is counted in {r.unit}</span>
                    ) : (
                      <select
                        aria-label={`${r.number} ${r.wording} is compared with`}
                        value={r.source}
                        onChange={(e) =>
                          void open.tell({ type: "setScheduleItem", item: r.id, was: r.source, source: e.target.value })
                        }
                      >
                        <option value="">nothing yet</option>
                        {r.sources.map((s) => (
                          <option key={s.source} value={s.source}>
                            {s.label}
                          </option>
                        ))}
                      </select>
                    )}
                  </td>
                  <td className="n">{r.ours && <Figure figure={r.ours} label={`Ours, ${r.wording}`} />}</td>
                  <td className="n">
                    {r.difference && <Figure figure={r.difference} label={`Difference, ${r.wording}`} />}
                    {r.percent && (
                      <>
                        {" "}
                        <Figure figure={r.percent} label={`Difference in percent, ${r.wording}`} />
                      </>
                    )}
                  </td>
                  <td>
                    {r.apart ? (
                      <span className="error">▲ apart</span>
                    ) : r.ours ? (
                      <span className="note">agrees</span>
                    ) : (
                      ""
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function BringInSchedule({ onDone }: { onDone: () => void }) {
  const [open, { job }] = useJob();
  const [table, setTable] = useState<Schemas["TableView"] | null>(null);
  const [mapping, setMapping] = useState<Record<string, number>>({});
  const [leaveOut, setLeaveOut] = useState(false);
  const [wrong, setWrong] = useState("");
  const { data, error } = useQuery({
    queryKey: ["read-schedule", job.id, table, mapping],
    queryFn: async () =>
      (
        await api.POST("/api/jobs/{id}/schedule/read-table", {
          params: { path: { id: job.id } },
          body: { columns: table!.columns, rows: table!.rows, mapping },
        })
      ).data!,
    enabled: table !== null,
    staleTime: Infinity,
    retry: false,
  });
  const bad = data?.rows.filter((r) => r.wrong !== null) ?? [];
  const good = data?.rows.filter((r) => r.wrong === null) ?? [];

  async function take() {
    try {
      await open.send({
        type: "addSchedule",
        rows: good.map((r) => ({
          id: newId(),
          number: r.number,
          wording: r.wording,
          unit: r.unit,
          quantity: r.quantity,
        })),
      });
      onDone();
    } catch (refused) {
      setWrong((refused as Error).message);
    }
  }

  return (
    <div className="bringin pad">
      <TableUpload
        purpose="schedule"
        table={table}
        mapping={mapping}
        onTable={(t) => {
          setTable(t);
          setMapping(t.mapping);
          setLeaveOut(false);
        }}
        onMapping={setMapping}
      />
      {error && <p className="error">{(error as Refused).message}</p>}
      {data && (
        <>
          <p role="status">
            <b>{good.length} rows can be read</b>
            {bad.length > 0 && <span className="error"> · {bad.length} cannot</span>}
          </p>
          {bad.length > 0 && (
            <ul className="badrows" aria-label="Rows that cannot be read">
              {bad.slice(0, 100).map((r) => (
                <li key={r.row}>
                  Row {r.row}: {r.wrong}
                </li>
              ))}
            </ul>
          )}
          {bad.length > 0 && (
            <label className="leaveout">
              <input type="checkbox" checked={leaveOut} onChange={(e) => setLeaveOut(e.target.checked)} /> Leave out the{" "}
              {bad.length} rows that cannot be read
            </label>
          )}
          <p>
            <Button
              variant="contained"
              disabled={good.length === 0 || (bad.length > 0 && !leaveOut)}
              onClick={() => void take()}
            >
              Add {good.length} rows
            </Button>
          </p>
        </>
      )}
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
