import { memo } from "react";
import type { Cell, Schemas } from "../api/client";

export type Shows = "hours" | "quantity" | "cost" | "price";

interface Props {
  /** What it is of: work item and place, for its name. */
  name: string;
  work: string;
  place: string;
  unit: string;
  cell: Cell | undefined;
  money: Schemas["CellMoney"] | undefined;
  shows: Shows;
  selected: boolean;
  current: boolean;
  column: number;
  left: number;
  width: number;
  first: boolean;
  frozen: boolean;
}

const words = { included: "included", excluded: "excluded", alternate: "an alternate, not in the price" };

/** A cell of the scope grid: what is done there in a glyph and words, and its figure. */
export const GridCell = memo(function GridCell(props: Props) {
  const { cell, shows, unit } = props;
  const state = cell?.state ?? "none";
  const amounts = cell?.shown;
  // What a sum is allowed for has no hours of its own.
  const allowed = cell?.allowed === true && shows === "hours";
  const text = allowed ? "" : shows === "hours" || shows === "quantity" ? amounts?.[shows] : props.money?.[shows];
  const path =
    shows === "hours" || shows === "quantity"
      ? `cells/${props.work}/${props.place}/${shows}`
      : `lines/${props.work}/${props.place}/${shows}`;
  const said = !cell
    ? "none here"
    : `${text ? `${text} ${shows === "hours" ? "h" : shows === "quantity" ? unit : ""}`.trim() + ", " : ""}${words[cell.state]}${allowed ? ", an allowance" : ""}`;
  return (
    <div
      role="gridcell"
      data-cell={`${props.work}/${props.place}`}
      data-figure={text ? path : undefined}
      tabIndex={props.current ? 0 : -1}
      aria-colindex={props.column}
      aria-selected={props.selected}
      aria-label={`${props.name}: ${said}${cell?.differs ? ", differs from its item" : ""}${cell?.note ? `, ${cell.note}` : ""}`}
      title={cell?.note || undefined}
      className={`gc${props.first ? " first" : ""}${props.frozen ? " frozen" : ""}`}
      style={
        props.frozen
          ? { position: "sticky", left: props.left, width: props.width }
          : { left: props.left, width: props.width }
      }
    >
      <i className={`cell ${state}`}>
        {state === "none"
          ? "·"
          : state === "excluded"
            ? "out"
            : state === "alternate"
              ? `alt ${text ?? ""}`
              : allowed
                ? "sum"
                : (text ?? "…")}
        {cell?.differs && <b className="differs" aria-hidden="true" />}
        {cell?.note && <sup aria-hidden="true">✎</sup>}
      </i>
    </div>
  );
});

/** Cost and price by cell, ready to be shown. */
export const moneyByCell = (money: Schemas["MoneyView"] | undefined): ReadonlyMap<string, Schemas["CellMoney"]> =>
  new Map((money?.work ?? []).flatMap((w) => w.cells.map((c) => [`${w.work}/${c.place}`, c.shown] as const)));

/** What is shown of a block, as a spreadsheet takes it: rows by line, columns by tab. */
export function asTable(
  work: readonly string[],
  places: readonly string[],
  shows: Shows,
  cells: ReadonlyMap<string, Cell>,
  money: ReadonlyMap<string, Schemas["CellMoney"]>,
): string {
  const text = (key: string) => {
    const cell = cells.get(key);
    if (!cell) return "";
    if (cell.state === "excluded") return cell.note ? `out: ${cell.note}` : "out";
    if (cell.state === "alternate") return "alt";
    return (shows === "hours" || shows === "quantity" ? cell.shown?.[shows] : money.get(key)?.[shows]) ?? "x";
  };
  const quoted = (t: string) => (/["\t\n]/.test(t) ? `"${t.replaceAll('"', '""')}"` : t);
  return places.map((p) => work.map((w) => quoted(text(`${w}/${p}`))).join("\t")).join("\n");
}
