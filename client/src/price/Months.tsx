import { useState } from "react";
import { Check } from "../controls/Check";
import { months, monthsInWords } from "./months";
import styles from "./year.module.css";

interface Props {
  /** What they are the months of. */
  of: string;
  named: readonly number[];
  /** What it is where none is named. */
  none: string;
  /** Sends them; what stood there before comes with them. */
  onChoose: (now: number[], was: readonly number[]) => Promise<unknown>;
}

/** Months of a year to be ticked; none of them is what it is without. One is ticked after the other without waiting for an answer. */
export function Months({ of, named, none, onChoose }: Props) {
  const [mine, setMine] = useState<readonly number[]>(named);
  const [flying, setFlying] = useState(0);
  // What others have ticked is taken over once one's own has been answered.
  if (flying === 0 && mine.join() !== named.join()) setMine(named);
  function tick(month: number, on: boolean) {
    const ticked = months.map((_, i) => i + 1).filter((m) => (m === month ? on : mine.includes(m)));
    const now = ticked.length === months.length ? [] : ticked;
    setMine(now);
    setFlying((n) => n + 1);
    const done = () => setFlying((n) => n - 1);
    void onChoose(now, mine).then(done, done);
  }
  return (
    <details className={styles.ticks}>
      <summary aria-label={`Months of ${of}: ${monthsInWords(mine, none)}`}>{monthsInWords(mine, none)}</summary>
      <div role="group" aria-label={`Months of ${of}`}>
        {months.map((name, i) => (
          <Check key={name} on={mine.includes(i + 1)} onTick={(on) => tick(i + 1, on)}>
            {name}
          </Check>
        ))}
      </div>
    </details>
  );
}
