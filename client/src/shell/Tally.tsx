import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";

/** The figures at the foot of every job screen; each shows for a moment what the last edit moved. */
export function Tally() {
  const [, { job, delta }] = useJob();
  const { tally } = job;
  const items = [
    { label: tally.year ? "Labour, a year" : "Labour", figure: tally.hours, moved: delta?.hours },
    { label: `Crew of ${tally.crewSize}`, figure: tally.crewDays },
    { label: "Materials", figure: tally.materials, moved: delta?.materials },
    { label: tally.year ? "Cost, first year" : "Cost", figure: tally.cost, moved: delta?.cost },
    { label: tally.year ? "Price, first year" : "Price before tax", figure: tally.beforeTax, moved: delta?.beforeTax },
    { label: "Customer pays", figure: tally.total },
  ];
  // The gauge runs from 0 to 100 %; these are widths on screen, not figures.
  const at = (percent: string) => `calc(min(max(${percent}, 0), 100) * 1%)`;
  return (
    <footer className="tally" aria-label="Totals of the job">
      {items.map((item) => (
        <div className="item" key={item.label}>
          <span>{item.label}</span>
          <b>
            <Figure figure={item.figure} label={item.label} />
          </b>
          {item.moved && (
            <Figure
              key={job.version}
              className="moved"
              figure={item.moved}
              label={`${item.label}, moved by the last edit`}
            />
          )}
        </div>
      ))}
      <div className="gauge">
        <span className="note">
          {tally.margin ? (
            <>
              Margin <Figure figure={tally.margin} label="Margin" /> — {tally.marginWords}
            </>
          ) : (
            tally.marginWords
          )}
        </span>
        <div className="bar" aria-hidden="true">
          {tally.margin && <i style={{ width: at(tally.margin.value) }} />}
          <em className="floor" style={{ left: at(tally.floorMargin) }}>
            <span>floor {tally.floorMargin}</span>
          </em>
          <em style={{ left: at(tally.goalMargin) }}>
            <span>target {tally.goalMargin}</span>
          </em>
        </div>
      </div>
    </footer>
  );
}
