import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
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
    <div className={data.year ? styles.year : price.page}>
      <div className={price.stack}>
        {data.year ? (
          <section className="panel" aria-label="The year">
            <YearSums year={data.year} />
            <YearPicture year={data.year} />
          </section>
        ) : (
          <Nothing onMake={make} />
        )}
        <Rhythms view={data} onMake={make} />
      </div>
      {data.year && (
        <div className={price.stack}>
          <Frequencies view={data} />
          <RoundTerms view={data} />
          <Supplies view={data} />
          <DaysOff />
        </div>
      )}
      {making && <NewRhythm view={data} onClose={() => setMaking(false)} />}
    </div>
  );
}

function Nothing({ onMake }: { onMake: () => void }) {
  const [, { job }] = useJob();
  const none = job.rhythms.length === 0;
  return (
    <section className="panel" aria-label="The year">
      <header>
        <h2>The year</h2>
      </header>
      <p className="pad note">
        {none
          ? "All work of this job is done once. Give it a rhythm where it comes back, so many times a year or when something happens: then each visit has its price, and the year its months."
          : "No work in the price goes by a rhythm yet. Say below which does."}
      </p>
      {none && (
        <p className="pad">
          <button type="button" className="act" onClick={onMake}>
            New rhythm
          </button>
        </p>
      )}
    </section>
  );
}
