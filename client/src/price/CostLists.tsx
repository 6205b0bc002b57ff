import { Fragment, memo } from "react";
import type { Schemas } from "../api/client";
import { Figure } from "../figure/Figure";
import { FigureWords } from "../figure/FigureText";

type Lists = Pick<Schemas["PriceView"], "roles" | "buying" | "mixed" | "equipment" | "others">;

/** What the cost is made of: labour by role, goods as they are bought, machines, and the rest. */
export const CostLists = memo(function CostLists(price: Lists) {
  return (
    <>
      <section className="panel" aria-label="Labour">
        <header>
          <h2>Labour by role</h2>
        </header>
        <table className="list">
          <thead>
            <tr>
              <th>Role</th>
              <th className="n">Hours</th>
              <th className="n">Loaded cost</th>
              <th className="n">Cost</th>
            </tr>
          </thead>
          <tbody>
            {price.roles.map((r) => (
              <tr key={r.name}>
                <td>{r.name}</td>
                <td className="n">
                  <Figure figure={r.hours} label={`${r.name}, hours`} />
                </td>
                <td className="n">
                  <Figure figure={r.loadedCost} label={`${r.name}, loaded cost`} />
                </td>
                <td className="n">
                  <Figure figure={r.cost} label={`${r.name}, cost`} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="panel" aria-label="Materials">
        <header>
          <h2>Materials</h2>
          <span className="note">packs are bought once for the whole job</span>
        </header>
        <table className="list">
          <thead>
            <tr>
              <th>Material</th>
              <th className="n">Needed</th>
              <th>Packs to buy</th>
              <th className="n">Bought</th>
              <th className="n">Left over</th>
              <th className="n">Cost bought</th>
              <th className="n">Cost by need</th>
            </tr>
          </thead>
          <tbody>
            {price.buying.map((b) => {
              const name = b.colour ? `${b.name}, ${b.colour}` : b.name;
              return (
                <tr key={name}>
                  <td>{name}</td>
                  <td className="n">
                    <Figure figure={b.need} label={`${name}, needed`} />
                  </td>
                  <td>{b.packs ? <FigureWords figure={b.bought} words={b.packs} /> : "none"}</td>
                  <td className="n">
                    <Figure figure={b.bought} label={`${name}, bought`} />
                  </td>
                  <td className="n">
                    <Figure figure={b.leftover} label={`${name}, left over`} />
                  </td>
                  <td className="n">
                    <Figure figure={b.boughtCost} label={`${name}, cost bought`} />
                    {b.delivery && (
                      <small>
                        + <Figure figure={b.delivery} label={`${name}, delivery`} /> delivery
                      </small>
                    )}
                  </td>
                  <td className="n">
                    <Figure figure={b.needCost} label={`${name}, cost by need`} />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {price.mixed.map((m) => {
          const name = m.colour ? `${m.name}, ${m.colour}` : m.name;
          return (
            <p key={name} className="note">
              <Figure figure={m.quantity} label={`${name}, mixed`} /> of {name} are mixed from{" "}
              {m.parts.map((p, i) => (
                <Fragment key={i}>
                  {i > 0 && (i === m.parts.length - 1 ? " and " : ", ")}
                  <Figure figure={p.amount} label={`${name}: ${p.name}`} /> {p.name}
                  {p.free && " (free)"}
                </Fragment>
              ))}
              .
            </p>
          );
        })}
      </section>
      {price.equipment.length > 0 && (
        <section className="panel" aria-label="Equipment">
          <header>
            <h2>Equipment</h2>
            <span className="note">while the crew works, by the day and visit</span>
          </header>
          <ul className="rows">
            {price.equipment.map((e) => (
              <li key={e.name}>
                {e.name}
                <span>
                  {e.hours && <Figure figure={e.hours} label={`${e.name}, hours`} />} ·{" "}
                  <Figure figure={e.cost} label={`${e.name}, cost`} />
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {price.others.length > 0 && (
        <section className="panel" aria-label="Subcontracts, charges, price-only items">
          <header>
            <h2>Subcontracts, charges, price-only items</h2>
          </header>
          <ul className="rows">
            {price.others.map((o) => (
              <li key={o.name}>
                {o.name}
                <span>
                  {o.hours && (
                    <>
                      <Figure figure={o.hours} label={`${o.name}, how much`} /> ·{" "}
                    </>
                  )}
                  <Figure figure={o.cost} label={`${o.name}, money`} />
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
});
