import type { FigureView, Schemas } from "../api/client";
import { Figure } from "../figure/Figure";
import styles from "./year.module.css";

type Year = Schemas["FirstYearView"];

/** Twelve months along a tape: visits, what is billed and what it costs, the profit so far; and the same in figures. */
export function YearPicture({ year }: { year: Year }) {
  const marked = year.occurrences.filter((of) => of.days.length > 0 && of.days.length <= 60);
  return (
    <>
      <header className={styles.head}>
        <h2>Twelve months</h2>
        <span className="note">{year.from}</span>
        <span className={styles.legend} aria-hidden="true">
          <i className={styles.billed} /> billed <i className={styles.cost} /> cost <i className={styles.soFar} />{" "}
          profit so far
        </span>
      </header>
      <table className={styles.months} aria-label="The year by month">
        <thead>
          <tr>
            <th />
            {year.months.map((month) => (
              <th key={month.name} scope="col">
                {month.name}
              </th>
            ))}
            <th scope="col" className={styles.all}>
              all
            </th>
          </tr>
        </thead>
        <tbody aria-hidden="true">
          {marked.map((of) => (
            <tr key={of.id} className={styles.pins}>
              <th>{of.name}</th>
              <td colSpan={12}>
                {of.days.map((at, i) => (
                  <i key={i} style={{ left: `${at}%` }} />
                ))}
              </td>
              <td />
            </tr>
          ))}
          <tr className={styles.gap}>
            <td colSpan={14} />
          </tr>
          <tr className={styles.bars}>
            <th>
              {year.ticks.map((tick) => (
                <span key={tick.at} style={{ bottom: `${tick.at}%` }}>
                  {tick.label}
                </span>
              ))}
            </th>
            <td colSpan={12}>
              {year.ticks.map((tick) => (
                <hr key={tick.at} style={{ bottom: `${tick.at}%` }} />
              ))}
              <div>
                {year.months.map((month) => (
                  <span key={month.name}>
                    <i className={styles.billed} style={{ height: `${month.billedHeight}%` }} />
                    <i className={styles.cost} style={{ height: `${month.costHeight}%` }} />
                  </span>
                ))}
              </div>
            </td>
            <td />
          </tr>
          <tr className={styles.line}>
            <th>profit so far</th>
            <td colSpan={12}>
              <svg viewBox="0 0 1200 100" preserveAspectRatio="none">
                <path className={styles.area} d={`${year.line}V${year.nothing}H0Z`} />
                <path className={styles.nothing} d={`M0,${year.nothing}H1200`} />
                <path className={styles.profit} d={year.line} />
              </svg>
            </td>
            <td />
          </tr>
        </tbody>
        <tbody>
          {year.occurrences.map((of) => (
            <tr key={of.id}>
              <th scope="row">{of.name}</th>
              {of.visits.map((visits, i) => (
                <td key={i}>{visits}</td>
              ))}
              <td className={styles.all}>
                <Figure figure={of.times} label={`${of.name}, times in the year`} />
              </td>
            </tr>
          ))}
          <Row name="Billed" year={year} of={(m) => m.billed} all={year.billed} />
          <Row name="Cost" year={year} of={(m) => m.cost} all={year.allCost} />
          <Row name="Profit" year={year} of={(m) => m.profit} all={year.allProfit} strong />
          <Row name="So far" year={year} of={(m) => m.soFar} />
        </tbody>
      </table>
      <p className={styles.words}>{year.words.join(" ")}</p>
      {year.seasons.map((season) => (
        <p key={season.name} className={styles.words}>
          <b>{season.name}</b>: a season brings{" "}
          <Figure figure={season.expected} label={`${season.name}, as expected`} /> at what is expected
          {season.capped && (
            <>
              {" and "}
              <Figure figure={season.capped} label={`${season.name}, at the most`} /> at the most that is billed
            </>
          )}
          .
        </p>
      ))}
    </>
  );
}

interface RowProps {
  name: string;
  year: Year;
  of: (month: Schemas["MonthView"]) => FigureView;
  all?: FigureView;
  strong?: boolean;
}

function Row({ name, year, of, all, strong }: RowProps) {
  const loss = (figure: FigureView) => figure.value.startsWith("-");
  return (
    <tr className={strong ? styles.strong : undefined}>
      <th scope="row">{name}</th>
      {year.months.map((month) => (
        <td key={month.name} className={loss(of(month)) ? styles.loss : undefined}>
          <Figure figure={of(month)} label={`${name}, ${month.name}`} />
        </td>
      ))}
      <td className={styles.all}>{all && <Figure figure={all} label={`${name}, all`} />}</td>
    </tr>
  );
}
