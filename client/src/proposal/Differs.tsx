import type { Schemas } from "../api/client";
import styles from "./revisions.module.css";

const words = { added: "Added", dropped: "Dropped", repriced: "Repriced" } as const;
const signs = { added: "+", dropped: "−", repriced: "⇄" } as const;

/** What a later revision has more, less, at another price, in other words. */
export function Differs({ compared }: { compared: Schemas["ComparedView"] }) {
  const { earlier, later } = compared;
  return (
    <section className={`panel ${styles.differs}`} aria-label="What differs" tabIndex={0}>
      <table>
        <thead>
          <tr>
            <th scope="col">What differs</th>
            <th scope="col">{earlier}</th>
            <th scope="col">{later}</th>
            <th scope="col">Difference</th>
          </tr>
        </thead>
        {compared.groups.map((group) => {
          const kind = group.kind as keyof typeof words;
          return (
            <tbody key={kind} className={styles[kind]}>
              <tr className={styles.group}>
                <th scope="rowgroup" colSpan={3}>
                  <i aria-hidden="true">{signs[kind]}</i> {words[kind]} <small>{group.rows.length}</small>
                </th>
                <td>{group.sum}</td>
              </tr>
              {group.rows.map((row, i) => (
                <tr key={i}>
                  <th scope="row">
                    {row.label} {row.note && <small>{row.note}</small>}
                  </th>
                  <td>{row.before || `not in ${earlier}`}</td>
                  <td>{row.after || `not in ${later}`}</td>
                  <td>{row.by}</td>
                </tr>
              ))}
            </tbody>
          );
        })}
      </table>
      {compared.groups.length === 0 && <p className="pad">Every line is the same, to the cent.</p>}
      {compared.reworded.length > 0 && (
        <div className={styles.reworded}>
          <h3>
            Reworded <small>{compared.reworded.length}</small>
          </h3>
          {compared.reworded.map((block) => (
            <div key={block.title} role="group" aria-label={`Reworded: ${block.title}`}>
              <span className="note">{block.title}</span>
              <p>
                {block.runs.map((run, i) =>
                  run.change === "went" ? (
                    <del key={i}>{run.text}</del>
                  ) : run.change === "came" ? (
                    <ins key={i}>{run.text}</ins>
                  ) : (
                    <span key={i}>{run.text}</span>
                  ),
                )}
              </p>
            </div>
          ))}
        </div>
      )}
    </section>
  );
}
