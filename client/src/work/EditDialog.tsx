import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { type ReactNode, useId, useState } from "react";

/** A dialog that ends in one edit: what it would do above, a button that does it, and what is wrong if it is refused. */
export function EditDialog(props: {
  title: string;
  /** Words of the button that makes the edit. */
  apply: string;
  ready: boolean;
  wide?: boolean;
  onApply: () => Promise<void>;
  onClose: () => void;
  children: ReactNode;
}) {
  const [wrong, setWrong] = useState("");
  const id = useId();
  async function go() {
    try {
      await props.onApply();
      props.onClose();
    } catch (error) {
      setWrong((error as Error).message);
    }
  }
  return (
    <Dialog open onClose={props.onClose} aria-labelledby={id} fullWidth maxWidth={props.wide ? "md" : "sm"}>
      <DialogTitle id={id}>{props.title}</DialogTitle>
      <DialogContent>
        {props.children}
        {wrong && (
          <p className="error" role="alert">
            {wrong}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={props.onClose}>Back</Button>
        <Button variant="contained" disabled={!props.ready} onClick={() => void go()}>
          {props.apply}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
