import { useState } from "react";
import { Find } from "./Find";
import type { Filter } from "./layout";
import { noFilter } from "./layout";
import type { CellAt } from "./range";
import type { useGridEdits } from "./useGridEdits";
import { counted } from "../controls/counted";
import { Input } from "../controls/Input";
import { Choice } from "../controls/Choice";
import styles from "./work.module.css";

const onlys = {
  all: "all places",
  differs: "with cells that differ",
  excluded: "with something excluded",
  alternate: "with alternates",
  noted: "with a sentence",
  nothing: "with work of nothing",
  empty: "without work",
};

/** What is done to the selected cells, and which places and work are shown. */
export function ScopeTools(props: {
  filter: Filter;
  onFilter: (filter: Filter) => void;
  count: number;
  edits: ReturnType<typeof useGridEdits>;
  frozen: number;
  column: number;
  onFreeze: (columns: number) => void;
  onDialog: (dialog: "conditions" | "refresh" | "replace") => void;
  folded: number;
  onUnfold: () => void;
  at: CellAt | null;
  onGo: (at: CellAt, focus: boolean) => void;
}) {
  const { filter, edits, count, frozen } = props;
  const [open, setOpen] = useState(false);
  // What hides places or work is always to be seen.
  const filtering = open || filter.places !== "" || filter.work !== "" || filter.only !== "all";
  const field = (name: "places" | "work") => (
    <Input
      bare
      type="search"
      placeholder={name === "places" ? "places with…" : "work with…"}
      label={`Filter ${name}`}
      value={filter[name]}
      onType={(text) => props.onFilter({ ...filter, [name]: text })}
      onKeyDown={(e) => {
        if (e.key === "Escape") props.onFilter({ ...filter, [name]: "" });
        else if (e.key !== "Enter") return;
        if (props.at) props.onGo(props.at, true);
      }}
    />
  );
  return (
    <>
      <div className={styles.tools} role="toolbar" aria-label="Cells and what is shown">
        <Find at={props.at} onGo={props.onGo} />
        <button
          className="act"
          aria-expanded={filtering}
          aria-controls="scope-filter"
          onClick={() => setOpen(!filtering)}
        >
          Filter
        </button>
        {props.folded > 0 && (
          <button className="act" onClick={props.onUnfold}>
            Unfold
          </button>
        )}
        <span className={styles.gap} />
        {count > 0 && (
          <>
            <span className="note">{counted(count, "cell")}</span>
            <button className="act" onClick={() => edits.fill("included")}>
              Include <span className="kbd">I</span>
            </button>
            <button className="act" onClick={() => edits.fill("excluded")}>
              Exclude <span className="kbd">O</span>
            </button>
            <button className="act" onClick={() => edits.fill("alternate")}>
              Alternate <span className="kbd">L</span>
            </button>
            <button className="act" onClick={() => edits.fill(null)}>
              None here <span className="kbd">Del</span>
            </button>
            {edits.takeable > 0 && (
              <button className="act" onClick={edits.takeThere}>
                Take what is there <span className="kbd">M</span>
              </button>
            )}
          </>
        )}
        <Choice
          bare
          label="More"
          value=""
          none="More…"
          options={[
            ["freeze", frozen > 0 ? "Unfreeze columns" : "Freeze columns up to this one"],
            ["conditions", "Conditions on the whole job"],
            ["replace", "Replace a product everywhere"],
            ["refresh", "Refresh prices"],
          ]}
          closed={frozen === 0 && props.column < 0 ? ["freeze"] : []}
          onChoose={(what) => {
            if (what === "freeze") props.onFreeze(frozen > 0 ? 0 : props.column + 1);
            else props.onDialog(what);
          }}
        />
      </div>
      {filtering && (
        <div className={styles.tools} role="group" aria-label="Filter" id="scope-filter">
          {field("places")}
          {field("work")}
          <Choice
            bare
            label="Only places"
            value={filter.only}
            options={Object.entries(onlys) as [Filter["only"], string][]}
            onChoose={(only) => props.onFilter({ ...filter, only })}
          />
          <button
            className="act"
            onClick={() => {
              props.onFilter(noFilter);
              setOpen(false);
            }}
          >
            Show everything
          </button>
        </div>
      )}
    </>
  );
}
