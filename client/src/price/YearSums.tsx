import type { Schemas } from "../api/client";
import { Figure } from "../figure/Figure";
import styles from "./year.module.css";

type Year = Schemas["FirstYearView"];

/** What the year is made of, in one line: visits, supplies, the year, a month of it; and what is done once. */
export function YearSums({ year }: { year: Year }) {
  return (
    <div className={styles.sums}>
      {year.occurrences.map((of, i) => (
        <Part key={of.id} sign={i === 0 ? "" : "+"} under={of.name}>
          <Figure figure={of.times} label={`${of.name}, times a year`} />
          <span className={styles.sign}>×</span>
          <Figure figure={of.price} label={`${of.name}, price of one`} />
        </Part>
      ))}
      {year.supplies && (
        <Part sign="+" under="supplies">
          <Figure figure={year.supplies} label="Supplies of the year" />
        </Part>
      )}
      <Part sign="=" under="a year">
        <Figure figure={year.ofYear} label="A year" />
      </Part>
      <Part sign="÷ 12 =" under="a month">
        <Figure figure={year.month} label="A month" />
      </Part>
      {year.once && (
        <div className={`${styles.part} ${styles.once}`}>
          <span className={styles.sign}>once</span>
          <div>
            <b>
              <Figure figure={year.once.price} label="Once" />
            </b>
            <small>beside the year</small>
          </div>
        </div>
      )}
    </div>
  );
}

function Part({ sign, under, children }: { sign: string; under: string; children: React.ReactNode }) {
  return (
    <div className={styles.part}>
      {sign && <span className={styles.sign}>{sign}</span>}
      <div>
        <b>{children}</b>
        <small>{under}</small>
      </div>
    </div>
  );
}
