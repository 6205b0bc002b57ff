import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { type ReactNode, useId, useState } from "react";
import { classes } from "./classes";
import styles from "./ask.module.css";

interface Props {
  title: string;
  /** Words of the button that does it; none where everything in it saves by itself. */
  apply?: string;
  /** Whether it can be done now. */
  ready?: boolean;
  /** Its words while it is done. */
  busy?: string;
  width?: "xs" | "sm" | "md" | "lg";
  className?: string;
  /** Does it; what it is refused for is said, and the dialog stays. */
  onApply?: () => Promise<unknown>;
  /** Told of a refusal: true where it says so itself beside the field. */
  onRefused?: (error: Error) => boolean;
  onClose: () => void;
  children: ReactNode;
}

/** A dialog: what it would do above, a button that does it, and what is wrong if it is refused. Enter in a line does it. */
export function Ask({ title, apply, ready = true, width = "sm", busy, onApply, ...props }: Props) {
  const [wrong, setWrong] = useState("");
  const [going, setGoing] = useState(false);
  const id = useId();
  async function go() {
    setWrong("");
    setGoing(true);
    try {
      await onApply!();
      props.onClose();
    } catch (error) {
      if (!props.onRefused?.(error as Error)) setWrong((error as Error).message);
    }
    setGoing(false);
  }
  return (
    <Dialog open onClose={props.onClose} aria-labelledby={id} fullWidth maxWidth={width}>
      <form
        className={styles.form}
        onSubmit={(e) => {
          e.preventDefault();
          if (apply && ready && !going) void go();
        }}
      >
        <DialogTitle id={id}>{title}</DialogTitle>
        <DialogContent className={classes(styles.content, props.className)}>
          {props.children}
          {wrong && (
            <p className="error" role="alert">
              {wrong}
            </p>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={props.onClose}>Close</Button>
          {apply && (
            <Button type="submit" variant="contained" disabled={!ready || going}>
              {going && busy ? busy : apply}
            </Button>
          )}
        </DialogActions>
      </form>
    </Dialog>
  );
}
