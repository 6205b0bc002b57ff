import { useQuery } from "@tanstack/react-query";
import { askJob } from "../api/jobQueries";
import { Views } from "../controls/Views";
import { useJob } from "../job/JobContext";
import { useView } from "../job/useView";
import { BuildUp } from "./BuildUp";
import { HowSure } from "./HowSure";
import { Options } from "./Options";
import { TypeAny } from "./TypeAny";
import { Year } from "./Year";
import { WorthView } from "./Worth";
import styles from "./price.module.css";

const views = { buildUp: "Build-up", worth: "Worth", options: "Options", year: "Year", sure: "How sure" };
type View = keyof typeof views;

/** What is said of all that stands in a view. */
const said: Partial<Record<View, string>> = {
  worth: "Worth of a piece: the price with it, less the price without it, bought and raised anew, before rounding",
  options: "Alternates are offered beside the price: before tax and before the job's rounding",
  year: "A visit is priced by itself; the year multiplies it. Goods are bought once for the year",
  sure: "The price stands; hours and what is bought come out anywhere between least and most",
};

/** The Price station: from cost to what the customer pays, what each piece is worth, and how sure that is. */
export function PricePage() {
  const [, { job }] = useJob();
  const { data: price } = useQuery(askJob.price(job));
  // Workings lead to the view where a number can be changed; a term stands in the build-up.
  const [view, setView] = useView<View>(job.id, "price", views, "buildUp", (params) =>
    params.has("field") ? "buildUp" : null,
  );
  if (!price) return null;
  return (
    <div className={styles.page}>
      <div className={styles.bar}>
        <Views views={views} value={view} onChoose={setView} />
        <span className="note">{said[view] ?? `All amounts in ${job.info.currency}`}</span>
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
      ) : view === "options" ? (
        <Options />
      ) : view === "year" ? (
        <Year />
      ) : view === "sure" ? (
        <HowSure />
      ) : (
        <BuildUp whole={price} />
      )}
    </div>
  );
}
