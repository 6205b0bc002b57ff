import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";
import styles from "./price.module.css";

type Way = Schemas["WayView"];

/** The ways of pricing the job side by side; one is chosen. */
export function Ways({ onClose }: { onClose: () => void }) {
  const [open, { job }] = useJob();
  const { data } = useQuery(askJob.ways(job));
  async function choose(way: Way) {
    await open.send({
      type: "chooseBasis",
      was: job.pricing.basis,
      now: way.basis,
      fixedPrice: way.basis === "fixed" ? (data?.toFix ?? null) : null,
    });
    onClose();
  }
  return (
    <Ask title="How the job is priced" width="md" onClose={onClose}>
      <p className="note">
        What each way would bring, with everything that follows it. Choosing one is one step back by Ctrl+Z.
      </p>
      <table className="list">
        <thead>
          <tr>
            <th>Way</th>
            <th className="n">Price before tax</th>
            <th className="n">Margin</th>
            <th className="n">Per labour hour</th>
            {data?.area && <th className="n">{data.area}</th>}
            {data?.fixture && <th className="n">{data.fixture}</th>}
            <th />
          </tr>
        </thead>
        <tbody>
          {data?.ways.map((way) => (
            <tr key={way.basis} aria-current={way.now || undefined}>
              <td>{way.label}</td>
              {way.refused ? (
                <td colSpan={4 + Number(data.area !== "") + Number(data.fixture !== "")} className={styles.cannot}>
                  {way.refused}
                </td>
              ) : (
                <>
                  <td className="n">
                    {way.beforeTax && <Figure figure={way.beforeTax} label={`${way.label}, price before tax`} />}
                  </td>
                  <td className="n">{way.margin && <Figure figure={way.margin} label={`${way.label}, margin`} />}</td>
                  <td className="n">
                    {way.perHour && <Figure figure={way.perHour} label={`${way.label}, per labour hour`} />}
                  </td>
                  {data.area && (
                    <td className="n">
                      {way.perArea && <Figure figure={way.perArea} label={`${way.label}, per area`} />}
                    </td>
                  )}
                  {data.fixture && (
                    <td className="n">
                      {way.perFixture && <Figure figure={way.perFixture} label={`${way.label}, each`} />}
                    </td>
                  )}
                  <td>
                    {way.now ? (
                      "now"
                    ) : (
                      <button
                        type="button"
                        className="act"
                        aria-label={`Choose ${way.label.toLowerCase()}`}
                        onClick={() => void choose(way)}
                      >
                        Choose
                      </button>
                    )}
                  </td>
                </>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </Ask>
  );
}
