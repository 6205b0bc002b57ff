import { Autocomplete, Button, TextField } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { ask } from "../api/queries";
import { Field } from "../controls/Field";
import styles from "./office.module.css";
import { change } from "../api/changes";

type List = Schemas["UsualPlaceList"];

/** The firm's lists of usual places: what a kind of building has, and what is usually done there. */
export function UsualPlacesEditor() {
  const queries = useQueryClient();
  const [at, setAt] = useState(0);
  const [wrong, setWrong] = useState("");
  const { data: lists } = useQuery(ask.usualPlaces);
  const { data: book } = useQuery(ask.bookWork);
  const list = lists?.[Math.min(at, lists.length - 1)];

  async function keep(now: List[]) {
    try {
      const kept = await change.usualPlaces({ was: { lists: lists! }, now: { lists: now } });
      queries.setQueryData(ask.usualPlaces.queryKey, kept);
      setWrong("");
    } catch (error) {
      // After a conflict what stands there now is shown.
      await queries.invalidateQueries(ask.usualPlaces);
      throw error;
    }
  }
  const tell = (now: List[]) => keep(now).catch((error: Error) => setWrong(error.message));
  const changed = (part: Partial<List>) => lists!.map((l) => (l === list ? { ...l, ...part } : l));

  if (!lists || !book) return null;
  const free = (name: string, taken: readonly string[]) => {
    let n = 2;
    let next = name;
    while (taken.includes(next)) next = `${name} ${n++}`;
    return next;
  };
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
              const name = free(
                "New list",
                lists.map((l) => l.name),
              );
              void tell([...lists, { name, places: [] }]).then(() => setAt(lists.length));
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
                onKeep={(name) => keep(changed({ name: name.trim() }))}
              />
              <button className="link" onClick={() => void tell(lists.filter((l) => l !== list)).then(() => setAt(0))}>
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
                        label={`Place ${i + 1}`}
                        value={place.name}
                        onKeep={(name) =>
                          keep(
                            changed({ places: list.places.map((p, j) => (j === i ? { ...p, name: name.trim() } : p)) }),
                          )
                        }
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
                        onChange={(_, work) =>
                          void tell(
                            changed({
                              places: list.places.map((p, j) => (j === i ? { ...p, work: work.map((w) => w.id) } : p)),
                            }),
                          )
                        }
                        renderInput={(params) => <TextField {...params} label={`Usual work in ${place.name}`} />}
                      />
                    </td>
                    <td>
                      <button
                        className="link"
                        aria-label={`Remove ${place.name}`}
                        onClick={() => void tell(changed({ places: list.places.filter((_, j) => j !== i) }))}
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
              onClick={() => {
                const name = free(
                  "New place",
                  list.places.map((p) => p.name),
                );
                void tell(changed({ places: [...list.places, { name, work: [] }] }));
              }}
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
