import { useCallback, useMemo } from "react";
import type { Schemas } from "../api/client";
import { type Shows, asTable } from "../figure/cellFigure";
import { useJob } from "../job/JobContext";
import type { Layout } from "./layout";
import { takeMeasure } from "./edits";
import { type Box, idsIn, seen, tableFrom } from "./range";

const ours = "application/x-emendum-cells";

type State = Schemas["CellState"] | null;

/** What can be done to the cells that are selected; each is one edit, however many cells it touches. */
export function useGridEdits(
  layout: Layout,
  box: Box,
  shows: Shows,
  money: ReadonlyMap<string, Schemas["CellMoney"]>,
  say: (words: string) => void,
) {
  const [open, { job, cells }] = useJob();

  const fill = useCallback(
    (state: State, at = idsIn(box, layout)) => {
      if (at.work.length === 0 || at.places.length === 0) return;
      void open.tell({ type: "fillCells", ...at, was: seen(at.work, at.places, cells), state });
    },
    [box, cells, layout, open],
  );

  const copyOver = useCallback(
    (from: { work: string[]; places: string[] }, to: { work: string[]; places: string[] }) =>
      void open.tell({
        type: "copyCells",
        fromWork: from.work,
        fromPlaces: from.places,
        ...to,
        was: seen(to.work, to.places, cells),
      }),
    [cells, open],
  );

  /** The first row of the selection over the rest of it. */
  const fillDown = useCallback(() => {
    const { work, places } = idsIn(box, layout);
    if (places.length > 1) copyOver({ work, places: places.slice(0, 1) }, { work, places: places.slice(1) });
  }, [box, copyOver, layout]);

  /** The first column of the selection over the rest of it. */
  const fillAcross = useCallback(() => {
    const { work, places } = idsIn(box, layout);
    if (work.length > 1) copyOver({ work: work.slice(0, 1), places }, { work: work.slice(1), places });
  }, [box, copyOver, layout]);

  /** The selected cells that come to nothing where the place has another measure, by work item. */
  const nothings = useMemo(() => {
    const { work, places } = idsIn(box, layout);
    return work.flatMap(
      (w) =>
        takeMeasure(
          w,
          places.map((p) => [p, cells.get(`${w}/${p}`)] as const),
        ) ?? [],
    );
  }, [box, cells, layout]);

  /** Takes the measure that each place does have. */
  const takeThere = useCallback(() => {
    for (const edit of nothings) void open.tell(edit);
  }, [nothings, open]);
  const takeable = nothings.length;

  const copy = useCallback(
    (clipboard: DataTransfer) => {
      const { work, places } = idsIn(box, layout);
      clipboard.setData("text/plain", asTable(work, places, shows, cells, money));
      clipboard.setData(ours, JSON.stringify({ job: job.id, work, places }));
      say(work.length * places.length === 1 ? "1 cell copied" : `${places.length} × ${work.length} cells copied`);
    },
    [box, cells, job.id, layout, money, say, shows],
  );

  const paste = useCallback(
    (clipboard: DataTransfer) => {
      const own = clipboard.getData(ours);
      const from = own ? (JSON.parse(own) as { job: string; work: string[]; places: string[] }) : null;
      const known =
        from?.job === job.id &&
        from.work.every((w) => job.work.some((x) => x.id === w)) &&
        from.places.every((p) => job.places.some((x) => x.id === p));
      const table = known ? null : tableFrom(clipboard.getData("text/plain"));
      if (table && table.every((row) => row.every((text) => text === ""))) return;
      const wide = table ? Math.max(...table.map((r) => r.length)) : from!.work.length;
      const high = table ? table.length : from!.places.length;
      // A selection that is a whole number of blocks is filled with them; otherwise one block goes in at its corner.
      const [across, down] = [box.right - box.left + 1, box.bottom - box.top + 1];
      const tiles = across % wide === 0 && down % high === 0;
      const to = {
        work: layout.work.slice(box.left, box.left + (tiles ? across : wide)).map((w) => w.id),
        places: layout.places.slice(box.top, box.top + (tiles ? down : high)).map((p) => p.id),
      };
      if (to.work.length < wide || to.places.length < high)
        return say(
          `${high} rows and ${wide} columns do not fit here: below and beside the first cell there are ${to.places.length} and ${to.work.length}. Nothing was pasted.`,
        );
      if (!table) return copyOver({ work: from!.work, places: from!.places }, to);
      const texts = to.places.flatMap((_, r) => to.work.map((__, c) => table[r % high]![c % wide] ?? ""));
      void open
        .send({
          type: "pasteCells",
          ...to,
          was: seen(to.work, to.places, cells),
          texts,
          quantities: shows === "quantity",
        })
        .then(
          () =>
            say(shows === "quantity" ? "Pasted; numbers are quantities" : "Pasted; numbers say only that work is done"),
          (wrong: Error) => say(wrong.message),
        );
    },
    [box, cells, copyOver, job, layout, open, say, shows],
  );

  return useMemo(
    () => ({ fill, fillDown, fillAcross, takeThere, takeable, copy, paste }),
    [fill, fillDown, fillAcross, takeThere, takeable, copy, paste],
  );
}
