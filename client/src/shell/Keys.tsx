import { Dialog, DialogContent, DialogTitle } from "@mui/material";

const keys: [string, string][] = [
  ["Alt 1 … 4", "Measure, Work, Price, Proposal"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["E", "why? — the workings of the figure or cell in focus"],
  ["Enter", "keep the tape line; in the list of places, change the one in focus"],
  ["Space, Shift arrows, Ctrl A", "in the list of places: choose several"],
  ["C", "in the list of places: clone what is chosen"],
  ["Alt arrows", "in the list of places: move what is chosen up or down"],
  ["← →", "in the list of places: fold and unfold a heading"],
  ["↓ in the tape line", "after ; and a first letter: usual sizes"],
  ["Esc", "back out"],
  ["Delete", "remove the chosen places; clear the selected cells"],
  ["Arrows, Shift arrows", "move in the scope grid, select a range"],
  ["I, O, Delete", "in the scope grid: included, out (excluded), none here"],
  ["Ctrl A", "in the scope grid: select everything"],
  ["A", "on Work: add work from the Book"],
  ["?", "this list"],
];

/** What the keys do. */
export function Keys({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">Keys</DialogTitle>
      <DialogContent>
        <table className="list">
          <tbody>
            {keys.map(([key, what]) => (
              <tr key={key}>
                <th scope="row" style={{ whiteSpace: "nowrap", borderColor: "var(--hair)" }}>
                  {key}
                </th>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </DialogContent>
    </Dialog>
  );
}
