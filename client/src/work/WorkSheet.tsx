import { ToggleButton, ToggleButtonGroup } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { type Schemas, type Work, api } from "../api/client";
import { Field } from "../figure/Field";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { cellKey } from "../job/openJob";
import { WorkSettings } from "./WorkSettings";
import type { CellAt } from "./range";

/** Settings of the work item in focus, and of the cell when one is selected. */
export function WorkSheet({ chosen, item }: { chosen: CellAt[]; item: Work | undefined }) {
  const [open, { job, cells }] = useJob();
  const { data: book } = useQuery({
    queryKey: ["products"],
    queryFn: async () => (await api.GET("/api/book/products")).data!,
  });
  if (!item)
    return (
      <aside className="panel sheet" aria-label="Work item">
        <p className="note">What is selected in the grid is set here.</p>
      </aside>
    );
  const products = book?.filter((p) => p.covers === item.covers) ?? [];
  const only = chosen.length === 1 ? chosen[0]! : null;
  const cell = only && cells.get(cellKey(only.work, only.place));
  const set = (field: string) => (was: unknown) => (now: unknown) =>
    open.send({ type: "setWork", work: item.id, field, was, now } as never);
  return (
    <aside className="panel sheet" aria-label="Work item">
      <header>
        <h2>
          {item.section}: {item.name}
        </h2>
      </header>
      <ul className="rows">
        <li>
          {item.measureLabel}
          {item.quantity ? (
            <Figure figure={item.quantity} label={item.measureLabel} />
          ) : (
            <span className="note">nowhere yet</span>
          )}
        </li>
        {item.hours && (
          <li>
            Labour <Figure figure={item.hours} label={`Labour, ${item.name}`} />
          </li>
        )}
        {item.coatsOffered.length > 0 && (
          <li>
            Coats
            <ToggleButtonGroup
              exclusive
              value={item.coats}
              aria-label="Coats"
              onChange={(_, coats: number | null) =>
                coats &&
                void open.tell({ type: "setWork", work: item.id, field: "coats", was: item.coats, now: coats } as never)
              }
            >
              {item.coatsOffered.map((c) => (
                <ToggleButton key={c} value={c}>
                  {c}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
          </li>
        )}
        {item.kind === "rate" && (
          <li className="stack">
            <Field
              key={item.paceShown}
              label={item.pace ? "Pace, for this job" : "Pace, as in the Book"}
              value={item.paceShown}
              onKeep={(text) => set("pace")(item.pace)(text.trim() === "" ? null : text)}
              hint={item.coatsOffered.length > 0 ? "for all coats together" : undefined}
            />
            {item.pace && (
              <button
                className="link"
                onClick={() =>
                  void open.tell({ type: "setWork", work: item.id, field: "pace", was: item.pace, now: null } as never)
                }
              >
                Back to the Book's pace
              </button>
            )}
          </li>
        )}
        {products.length > 0 && (
          <li className="stack">
            <label>
              <span className="note">Product</span>
              <select value={item.product ?? ""} onChange={(e) => void changeProduct(e.target.value)}>
                {products.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              </select>
            </label>
          </li>
        )}
        <WorkSettings key={item.id} item={item} />
        <li className="stack">
          <Field
            key={`c${item.id}${item.colour}`}
            label="Colour"
            value={item.colour}
            onKeep={(text) => set("colour")(item.colour)(text.trim())}
          />
        </li>
        <li className="stack">
          <Field
            key={`w${item.id}${item.wording}`}
            label="Customer reads"
            value={item.wording}
            onKeep={(text) => set("wording")(item.wording)(text.trim())}
          />
        </li>
      </ul>
      {cell && only && (
        <section className="cellsheet" aria-label="This cell">
          <h3>In {job.places.find((p) => p.id === only.place)?.name}</h3>
          {cell.state === "included" ? (
            <Sentences only={only} item={item} />
          ) : (
            <p className="note">excluded: stated to customer and crew, priced at nothing</p>
          )}
          <Field
            key={`n${only.work}${only.place}${cell.note}`}
            label={cell.state === "excluded" ? "Say why, or what to leave" : "Note for customer and crew"}
            value={cell.note}
            onKeep={(note) =>
              open.send({ type: "setNote", work: only.work, place: only.place, was: cell.note, note: note.trim() })
            }
          />
        </section>
      )}
      <section className="cellsheet">
        <h3>{item.kind === "assembly" ? "Parts, as in the Book" : "From the Book"}</h3>
        {item.parts.map((part) => (
          <p key={part} className="note">
            {part}
          </p>
        ))}
        <p className="note">
          <Link to={`/book/${item.entry}`}>its entry in the Book</Link>
        </p>
        {item.crewNote && <p className="note">Crew reads: {item.crewNote}</p>}
        <button className="link warn" onClick={() => void open.tell({ type: "removeWork", work: item.id })}>
          Take this work out of the job
        </button>
      </section>
    </aside>
  );

  async function changeProduct(product: string) {
    await open.tell({
      type: "setWork",
      work: item!.id,
      field: "product",
      was: item!.ownProduct,
      now: product,
    } as never);
  }
}

/** The sentences behind a cell's figures. */
function Sentences({ only, item }: { only: CellAt; item: Work }) {
  const [, { job, answers }] = useJob();
  const path = `cells/${cellKey(only.work, only.place)}`;
  const { data } = useQuery({
    queryKey: ["cell", job.id, answers, path],
    queryFn: async () =>
      (
        await api.GET("/api/jobs/{id}/cells/{work}/{place}", {
          params: { path: { id: job.id, work: only.work, place: only.place } },
        })
      ).data as Schemas["CellSheetView"],
    placeholderData: (kept) => kept,
  });
  return (
    <ul className="sentences" aria-label={`Workings of ${item.name} here`}>
      {data?.lines.map((line) => (
        <li key={line.figure.path}>
          {line.label} <Figure figure={line.figure} label={line.label} />
          <span>{line.sentence}</span>
        </li>
      ))}
    </ul>
  );
}
