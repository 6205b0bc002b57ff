import { type Schemas, newId } from "../api/client";
import { typedNumber } from "../controls/typedNumber";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import { Months } from "./Months";
import { Rows } from "./Rows";
import { useRound } from "./useRound";
import styles from "./year.module.css";

type View = Schemas["YearView"];
type Supply = Schemas["YearSupply"];

/** What is bought for the year, and in which months. */
export function Supplies({ view }: { view: View }) {
  const [, { job }] = useJob();
  const terms = job.round;
  const set = useRound();
  return (
    <section className="panel" aria-label="Supplies for the year">
      <header>
        <h2>Supplies for the year</h2>
      </header>
      <div className="pad">
        <p className="note">What, how many, what one costs. A visit’s own goods stand in its work.</p>
        <div className={styles.supplies}>
          <Rows<Supply>
            one="supply"
            rows={terms.supplies}
            columns={[
              { label: "What", wide: true, text: (s) => s.name, with: (s, name) => ({ ...s, name }) },
              {
                label: "How many",
                text: (s) => s.quantity,
                with: (s, q) => ({ ...s, quantity: typedNumber(q) }),
              },
              {
                label: "One costs",
                unit: job.info.currency,
                text: (s) => s.each,
                with: (s, each) => ({ ...s, each: typedNumber(each) }),
              },
            ]}
            blank={{ id: newId(), name: "", quantity: "", each: "", months: [] }}
            more={(supply, setSupply) => (
              <div className={styles.supply}>
                <Months
                  of={supply.name}
                  named={supply.months}
                  none="bought in the first month"
                  onChoose={(months) => setSupply({ ...supply, months })}
                />
                {view.supplies
                  .filter((s) => s.supply.id === supply.id && s.cost)
                  .map((s) => (
                    <Figure key={s.supply.id} figure={s.cost!} label={`${supply.name}, cost`} />
                  ))}
              </div>
            )}
            onSave={(supplies) => set("supplies", supplies)}
          />
        </div>
      </div>
    </section>
  );
}

/** Working days on which nobody comes. */
export function DaysOff() {
  const [, { job }] = useJob();
  const terms = job.round;
  const set = useRound();
  return (
    <section className="panel" aria-label="Days off">
      <header>
        <h2>Days off</h2>
      </header>
      <div className="pad">
        <p className="note">Nobody comes: work moves to the next working day, daily work falls away.</p>
        <Rows<string>
          one="day off"
          rows={terms.daysOff}
          columns={[{ label: "Day, like 2027-12-27", wide: true, text: (d) => d, with: (_, day) => day }]}
          blank=""
          onSave={(days) => set("daysOff", [...days].sort())}
        />
      </div>
    </section>
  );
}
