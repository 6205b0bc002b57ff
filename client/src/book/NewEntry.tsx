import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, newId } from "../api/client";
import { bookChanged } from "./useEntry";

/** A new entry needs a name; the rest is filled in on its page. */
export function NewEntry(props: { kind: string; words: string; onClose: () => void; onMade: (id: string) => void }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState("");
  async function make() {
    const id = newId();
    try {
      await api.POST("/api/book", { body: { id, kind: props.kind, name } });
      await bookChanged(queries);
      props.onMade(id);
    } catch (error) {
      setWrong((error as Error).message);
    }
  }
  return (
    <Dialog open onClose={props.onClose} aria-labelledby="new-entry" fullWidth maxWidth="xs">
      <DialogTitle id="new-entry">New {props.words}</DialogTitle>
      <DialogContent>
        <div className="field">
          <label htmlFor="new-name">Name</label>
          <input
            id="new-name"
            autoFocus
            autoComplete="off"
            value={name}
            aria-invalid={wrong !== ""}
            aria-describedby="new-wrong"
            onChange={(e) => setName(e.target.value)}
            onKeyDown={(e) => e.key === "Enter" && void make()}
          />
          <span id="new-wrong" className="error" role={wrong ? "alert" : undefined}>
            {wrong}
          </span>
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={props.onClose}>Cancel</Button>
        <Button variant="contained" onClick={() => void make()}>
          Make it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
