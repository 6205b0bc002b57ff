import { ToggleButton, ToggleButtonGroup } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { askJob } from "../api/jobQueries";
import { useJob } from "../job/JobContext";
import { useKept } from "../job/useKept";
import { BuildUp } from "./BuildUp";
import { TypeAny } from "./TypeAny";
import { WorthView } from "./Worth";
import styles from "./price.module.css";

const views = { buildUp: "Build-up", worth: "Worth" };
type View = keyof typeof views;

/** The Price station: from cost to what the customer pays, and what each piece is worth. */
export function PricePage() {
  const [, { job }] = useJob();
  const { data: price } = useQuery(askJob.price(job));
  const [view, setView] = useKept<View>(job.id, "price/view", "buildUp");
  if (!price) return null;
  return (
    <div className={styles.page}>
      <div className={styles.bar}>
        <ToggleButtonGroup
          exclusive
          value={view}
          aria-label="View"
          onChange={(_, to: View | null) => to && setView(to)}
        >
          {Object.entries(views).map(([key, words]) => (
            <ToggleButton key={key} value={key}>
              {words}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <span className="note">
          {view === "worth"
            ? "Worth of a piece: the price with it, less the price without it, bought and raised anew, before rounding"
            : `All amounts in ${job.info.currency}`}
        </span>
        <span className={styles.takeOut}>
          Cost sheet:
          <a href={`/api/jobs/${job.id}/cost-sheet.pdf`} download aria-label="Cost sheet, PDF">
            PDF
          </a>
          <a href={`/api/jobs/${job.id}/cost-sheet.xlsx`} download aria-label="Cost sheet, workbook with live prices">
            workbook with live prices
          </a>
        </span>
      </div>
      {view === "worth" ? (
        <div className={styles.price}>
          <WorthView />
          <div className={styles.right}>
            <TypeAny price={price} />
          </div>
        </div>
      ) : (
        <BuildUp price={price} />
      )}
    </div>
  );
}
