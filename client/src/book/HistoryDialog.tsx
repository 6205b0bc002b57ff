import { useQuery, useQueryClient } from "@tanstack/react-query";
import { bookChanged } from "./useEntry";
import styles from "./book.module.css";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";

/** The versions of an entry: who saved each, when, what it changed, and a way back. */
export function HistoryDialog({ id, current, onClose }: { id: string; current: number; onClose: () => void }) {
  const queries = useQueryClient();
  const { data: versions } = useQuery(ask.versions(id, current));
  async function back(version: number) {
    queries.setQueryData(["entry", id], await change.restoreEntry(id, version));
    await bookChanged(queries, id);
    onClose();
  }
  return (
    <Ask title="Versions" onClose={onClose}>
      <ol className={styles.versions} aria-label="Versions, newest first">
        {versions?.map((v) => (
          <li key={v.version}>
            <p>
              <b>Version {v.version}</b>{" "}
              <span className="note">
                {v.at && new Date(v.at).toLocaleString()} by {v.person}
                {v.why && `, ${v.why}`}
              </span>{" "}
              {v.version !== current && (
                <button type="button" className="link" onClick={() => void back(v.version)}>
                  Go back to version {v.version}
                </button>
              )}
            </p>
            <ul>
              {v.differences.map((d) => (
                <li key={d.field}>
                  {d.field}: <del>{d.was || "nothing"}</del> → {d.now || "nothing"}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
      <p className="note">Going back makes a new version like the old one; nothing is lost.</p>
    </Ask>
  );
}
