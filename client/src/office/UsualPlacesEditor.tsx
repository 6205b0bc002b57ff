import { Autocomplete, Button, TextField } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { ask } from "../api/queries";
import { Field } from "../controls/Field";
import { freeName } from "../controls/freeName";
import styles from "./office.module.css";
import { change } from "../api/changes";
import { useInTurn } from "../api/useInTurn";

type List = Schemas["UsualPlaceList"];

/** The firm's lists of usual places: what a kind of building has, and what is usually done there. */
export function UsualPlacesEditor() {
  const queries = useQueryClient();
  const [at, setAt] = useState(0);
  const [wrong, setWrong] = useState("");
  const { data: lists } = useQuery(ask.usualPlaces);
  const { data: book } = useQuery(ask.bookWork);
  const inTurn = useInTurn();

  /** Keeps what an edit makes of the lists as they stand when it is its turn. */
  const keep = (edit: (lists: List[]) => List[]) =>
    inTurn(async () => {
      const was = queries.getQueryData(ask.usualPlaces.queryKey)!;
      try {
        const kept = await change.usualPlaces({ was: { lists: was }, now: { lists: edit(was) } });
        queries.setQueryData(ask.usualPlaces.queryKey, kept);
        setWrong("");
      } catch (error) {
        // After a conflict what stands there now is shown.
        await queries.invalidateQueries(ask.usualPlaces);
        throw error;
      }
    });
  const tell = (edit: (lists: List[]) => List[]) => keep(edit).catch((error: Error) => setWrong(error.message));
  const here = Math.min(at, (lists?.length ?? 1) - 1);
  const changed = (edit: (list: List) => Partial<List>) => (all: List[]) =>
    all.map((l, i) => (i === here ? { ...l, ...edit(l) } : l));
  const placeChanged = (place: number, part: Partial<List["places"][number]>) =>
    changed((l) => ({ places: l.places.map((p, i) => (i === place ? { ...p, ...part } : p)) }));

  if (!lists || !book) return null;
  const list = lists[here];
  return (
    <section className={`panel ${styles.wide}`} aria-label="Usual places">
      <header>
        <h2>Usual places</h2>
        <span className="note">to pick and count from when a job begins</span>
      </header>
      <div className="pad">
        <div className={styles.lists} role="group" aria-label="Kinds of building">
          {lists.map((l, i) => (
            <button key={i} className="plain" aria-pressed={l === list} onClick={() => setAt(i)}>
              {l.name}
            </button>
          ))}
          <button
            className="link"
            onClick={() => {
              const add = (all: List[]) => [
                ...all,
                { name: freeName("New list", (name) => all.some((l) => l.name === name)), trade: "", places: [] },
              ];
              void tell(add).then(() => setAt(lists.length));
            }}
          >
            Add a list
          </button>
        </div>
        {list && (
          <>
            <div className="two">
              <Field
                key={`k${at}`}
                label="Kind of building"
                value={list.name}
                onKeep={(name) => keep(changed(() => ({ name: name.trim() })))}
              />
              <Field
                key={`t${at}`}
                label="Trade whose work it brings"
                value={list.trade ?? ""}
                onKeep={(trade) => keep(changed(() => ({ trade: trade.trim() })))}
              />
              <button
                className="link"
                onClick={() => void tell((all) => all.filter((_, i) => i !== here)).then(() => setAt(0))}
              >
                Remove this list
              </button>
            </div>
            <table className="list">
              <thead>
                <tr>
                  <th>Place</th>
                  <th>Usual work</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {list.places.map((place, i) => (
                  <tr key={i}>
                    <td>
                      <Field
                        bare
                        label={`Place ${i + 1}`}
                        value={place.name}
                        onKeep={(name) => keep(placeChanged(i, { name: name.trim() }))}
                      />
                    </td>
                    <td>
                      <Autocomplete
                        multiple
                        size="small"
                        disableCloseOnSelect
                        options={book}
                        value={book.filter((b) => place.work.includes(b.id))}
                        getOptionLabel={(b) => `${b.section}: ${b.name}`}
                        isOptionEqualToValue={(a, b) => a.id === b.id}
                        onChange={(_, work) => void tell(placeChanged(i, { work: work.map((w) => w.id) }))}
                        renderInput={(params) => <TextField {...params} label={`Usual work in ${place.name}`} />}
                      />
                    </td>
                    <td>
                      <button
                        className="link"
                        aria-label={`Remove ${place.name}`}
                        onClick={() => void tell(changed((l) => ({ places: l.places.filter((_, j) => j !== i) })))}
                      >
                        Remove
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <Button
              size="small"
              onClick={() =>
                void tell(
                  changed((l) => ({
                    places: [
                      ...l.places,
                      { name: freeName("New place", (name) => l.places.some((p) => p.name === name)), work: [] },
                    ],
                  })),
                )
              }
            >
              Add a place
            </Button>
          </>
        )}
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </div>
    </section>
  );
}
