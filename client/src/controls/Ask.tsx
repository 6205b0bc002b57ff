import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { type ReactNode, useId, useState } from "react";
import styles from "./ask.module.css";

interface Props {
  title: string;
  /** Words of the button that does it; none where everything in it saves by itself. */
  apply?: string;
  /** Whether it can be done now. */
  ready?: boolean;
  /** Words of the button that leaves. */
  back?: string;
  width?: "xs" | "sm" | "md" | "lg";
  /** What stands before the buttons. */
  beside?: ReactNode;
  /** Does it; what it is refused for is said, and the dialog stays. */
  onApply?: () => Promise<unknown>;
  /** Told of a refusal: true where it says so itself beside the field. */
  onRefused?: (error: Error) => boolean;
  onClose: () => void;
  children: ReactNode;
}

/** A dialog: what it would do above, a button that does it, and what is wrong if it is refused. Enter in a line does it. */
export function Ask({ title, apply, ready = true, back, width = "sm", beside, onApply, ...props }: Props) {
  const [wrong, setWrong] = useState("");
  const id = useId();
  async function go() {
    setWrong("");
    try {
      await onApply!();
      props.onClose();
    } catch (error) {
      if (!props.onRefused?.(error as Error)) setWrong((error as Error).message);
    }
  }
  return (
    <Dialog open onClose={props.onClose} aria-labelledby={id} fullWidth maxWidth={width}>
      <form
        className={styles.form}
        onSubmit={(e) => {
          e.preventDefault();
          if (apply && ready) void go();
        }}
      >
        <DialogTitle id={id}>{title}</DialogTitle>
        <DialogContent className={styles.content}>
          {props.children}
          {wrong && (
            <p className="error" role="alert">
              {wrong}
            </p>
          )}
        </DialogContent>
        <DialogActions>
          {beside}
          <Button onClick={props.onClose}>{back ?? (apply ? "Back" : "Close")}</Button>
          {apply && (
            <Button type="submit" variant="contained" disabled={!ready}>
              {apply}
            </Button>
          )}
        </DialogActions>
      </form>
    </Dialog>
  );
}
