import { Dialog, DialogContent, DialogTitle } from "@mui/material";

const keys: [string, string][] = [
  ["Alt 1 … 5", "Measure, Work, Price, Proposal, Deliver"],
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
  ["A", "on Work: add work from the Book"],
  ["N, Shift N", "on Work: the next check, the one before"],
  ["Ctrl F", "on Work: find a place, work or a sentence; Enter the next, Shift Enter the one before"],
  ["Arrows, Shift arrows", "move in the scope grid, select a range; with Ctrl to the edge of what is filled"],
  ["Home, End, Page Up, Page Down", "in the scope grid: first and last work, a page of places"],
  ["Shift Space, Ctrl A", "in the scope grid: select whole rows, everything"],
  ["I, O, L, Delete", "in the scope grid: included, excluded, alternate, none here"],
  ["Space", "in the scope grid: include, or none here"],
  ["M", "in the scope grid: for work of nothing, take the measure that the place has"],
  ["Ctrl D, Ctrl R", "in the scope grid: fill down, fill across, from the first of what is selected"],
  ["Ctrl C, Ctrl V", "in the scope grid: copy and paste, also from and to a spreadsheet"],
  ["−", "in the scope grid: fold the section"],
  ["Enter", "in the scope grid: go to the sheet; Shift Tab comes back"],
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
