import type { Schemas } from "../api/client";
import { Figure } from "../figure/Figure";

type Two = Schemas["TwoView"];

/** Heads of the columns of two estimates side by side. */
export function TwoHead({ ours, theirs }: { ours: string; theirs: string }) {
  return (
    <thead>
      <tr>
        <th />
        {["Hours", "Cost", "Price"].map((what) => [
          <th key={what} className="n">
            {what}, {ours}
          </th>,
          <th key={`${what} there`} className="n">
            {theirs}
          </th>,
          <th key={`${what} more`} className="n">
            more
          </th>,
        ])}
      </tr>
    </thead>
  );
}

/** Hours, cost and price of two estimates side by side, with how much the other has more. */
export function TwoFigures({ name, of }: { name: string; of: { hours: Two; cost: Two; price: Two } }) {
  const three = (two: Two, what: string) => (
    <>
      <td className="n">
        <Figure figure={two.ours} label={`${name}, ${what}, ours`} />
      </td>
      <td className="n">
        <Figure figure={two.theirs} label={`${name}, ${what}, theirs`} />
      </td>
      <td className="n">
        <b>{two.more && <Figure figure={two.more} label={`${name}, ${what}, theirs less ours`} />}</b>
      </td>
    </>
  );
  return (
    <>
      {three(of.hours, "hours")}
      {three(of.cost, "cost")}
      {three(of.price, "price")}
    </>
  );
}
