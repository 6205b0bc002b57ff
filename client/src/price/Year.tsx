import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { useJob } from "../job/JobContext";
import { Frequencies } from "./Frequencies";
import { NewRhythm } from "./NewRhythm";
import { Rhythms } from "./Rhythms";
import { DaysOff, Supplies } from "./Supplies";
import { RoundTerms } from "./RoundTerms";
import { YearPicture } from "./YearPicture";
import { YearSums } from "./YearSums";
import price from "./price.module.css";
import styles from "./year.module.css";

/** Work that comes back: the year of a round, month by month. */
export function Year() {
  const [, { job }] = useJob();
  const [making, setMaking] = useState(false);
  const { data } = useQuery(askJob.year(job));
  if (!data) return null;
  const make = () => setMaking(true);
  return (
    <div className={price.page}>
      {data.year ? (
        <First year={data.year} view={data} onMake={make} />
      ) : (
        <>
          <Nothing view={data} onMake={make} />
          <Rhythms view={data} onMake={make} />
        </>
      )}
      {making && <NewRhythm view={data} onClose={() => setMaking(false)} />}
    </div>
  );
}

interface FirstProps {
  year: Schemas["FirstYearView"];
  view: Schemas["YearView"];
  onMake: () => void;
}

function First({ year, view, onMake }: FirstProps) {
  return (
    <div className={styles.year}>
      <div className={price.stack}>
        <section className="panel" aria-label="The year">
          <YearSums year={year} />
          <YearPicture year={year} />
        </section>
        <Rhythms view={view} onMake={onMake} />
      </div>
      <div className={price.stack}>
        <Frequencies view={view} />
        <RoundTerms view={view} />
        <Supplies view={view} />
        <DaysOff view={view} />
      </div>
    </div>
  );
}

function Nothing({ view, onMake }: { view: Schemas["YearView"]; onMake: () => void }) {
  return (
    <section className="panel" aria-label="The year">
      <header>
        <h2>The year</h2>
      </header>
      <p className="pad note">
        {view.rhythms.length === 0
          ? "All work of this job is done once. Give it a rhythm where it comes back, so many times a year or when something happens: then each visit has its price, and the year its months."
          : "No work in the price goes by a rhythm yet. Say below which does."}
      </p>
      {view.rhythms.length === 0 && (
        <p className="pad">
          <button type="button" className="act" onClick={onMake}>
            New rhythm
          </button>
        </p>
      )}
    </section>
  );
}
