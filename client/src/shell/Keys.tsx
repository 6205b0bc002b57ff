import { Dialog, DialogContent, DialogTitle } from "@mui/material";

const keys: [string, string][] = [
  ["Alt 1 … 4", "Measure, Work, Price, Proposal"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["E", "why? — the workings of the figure or cell in focus"],
  ["Enter", "keep the tape line; in the list of places, change the one in focus"],
  ["Esc", "back out"],
  ["Delete", "remove the place in focus; clear the selected cells"],
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
