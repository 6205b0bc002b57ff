import { Check } from "../controls/Check";
import { months, monthsInWords } from "./months";
import styles from "./year.module.css";

interface Props {
  /** What they are the months of. */
  of: string;
  named: readonly number[];
  /** What it is where none is named. */
  none: string;
  onChoose: (months: number[]) => void;
}

/** Months of a year to be ticked; none of them is what it is without. */
export function Months({ of, named, none, onChoose }: Props) {
  function tick(month: number, on: boolean) {
    const now = months.map((_, i) => i + 1).filter((m) => (m === month ? on : named.includes(m)));
    onChoose(now.length === months.length ? [] : now);
  }
  return (
    <details className={styles.ticks}>
      <summary aria-label={`Months of ${of}: ${monthsInWords(named, none)}`}>{monthsInWords(named, none)}</summary>
      <div role="group" aria-label={`Months of ${of}`}>
        {months.map((name, i) => (
          <Check key={name} on={named.includes(i + 1)} onTick={(on) => tick(i + 1, on)}>
            {name}
          </Check>
        ))}
      </div>
    </details>
  );
}
