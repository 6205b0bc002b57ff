import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api } from "../api/client";
import { bookChanged } from "./useEntry";

/** The versions of an entry: who saved each, when, what it changed, and a way back. */
export function HistoryDialog({ id, current, onClose }: { id: string; current: number; onClose: () => void }) {
  const queries = useQueryClient();
  const { data: versions } = useQuery({
    queryKey: ["versions", id, current],
    queryFn: async () => (await api.GET("/api/book/{id}/versions", { params: { path: { id } } })).data!,
  });
  async function back(version: number) {
    const { data } = await api.POST("/api/book/{id}/restore", { params: { path: { id } }, body: { version } });
    queries.setQueryData(["entry", id], data);
    await bookChanged(queries, id);
    onClose();
  }
  return (
    <Dialog open onClose={onClose} aria-labelledby="versions-title" fullWidth maxWidth="sm">
      <DialogTitle id="versions-title">Versions</DialogTitle>
      <DialogContent>
        <ol className="versions" aria-label="Versions, newest first">
          {versions?.map((v) => (
            <li key={v.version}>
              <p>
                <b>Version {v.version}</b>{" "}
                <span className="note">
                  {v.at && new Date(v.at).toLocaleString()} by {v.person}
                </span>{" "}
                {v.version !== current && (
                  <button className="link" onClick={() => void back(v.version)}>
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
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
