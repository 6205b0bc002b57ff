import { useState } from "react";
import type { Schemas } from "../src/api/client";
import styles from "./customer.module.css";
import type { Link, Now, Page } from "./link";

type Offer = Schemas["OfferView"];
type Choice = Schemas["ChoiceOnPage"];
type Option = Schemas["OptionOnPage"];

interface Props {
  page: Page;
  offer: Offer;
  link: Link;
  onPage: (now: Now) => void;
}

/** What can be chosen, each at its price; the price at the foot follows. */
export function Choices({ page, offer, link, onPage }: Props) {
  const [wrong, setWrong] = useState("");
  const [going, setGoing] = useState(false);
  const may = page.open && (page.signs || link.atTablet);
  const choose = async (choice: string | null, of: string, taken: boolean, together = false) => {
    if (going) return;
    setGoing(true);
    setWrong("");
    try {
      onPage(await link.choose({ id: crypto.randomUUID(), version: offer.version, choice, of, taken, together }));
    } catch (error) {
      setWrong((error as Error).message);
      void link.load().then(onPage, () => undefined);
    }
    setGoing(false);
  };
  if (offer.stopped) return <p className={styles.holds}>{offer.stopped}</p>;
  return (
    <div className={styles.choices} aria-busy={going}>
      <p>
        {may
          ? "Choose what you like; the price at the foot follows. Nothing is ordered until you sign."
          : "Each is the difference to what is included, before tax."}
      </p>
      {offer.choices.map((choice) => (
        <OneChoice key={choice.id} choice={choice} may={may} link={link} onChoose={choose} />
      ))}
      {offer.alternates.map((alternate) => (
        <div key={alternate.id} className={styles.alternate}>
          <span>
            <b>{alternate.name}</b>
            <small>{alternate.where}</small>
          </span>
          <span className={styles.amount}>{alternate.amount}</span>
          {may && (
            <button
              type="button"
              className={alternate.taken ? styles.act : styles.quiet}
              aria-pressed={alternate.taken}
              aria-label={`Add ${alternate.name}`}
              onClick={() => void choose(null, alternate.id, !alternate.taken)}
            >
              {alternate.taken ? "Added" : "Add it"}
            </button>
          )}
        </div>
      ))}
      <p className={styles.wrong} role="alert">
        {wrong}
      </p>
    </div>
  );
}

function OneChoice(props: {
  choice: Choice;
  may: boolean;
  link: Link;
  onChoose: (choice: string, of: string, taken: boolean, together?: boolean) => Promise<void>;
}) {
  const { choice, may, link } = props;
  const [find, setFind] = useState("");
  const [found, setFound] = useState<readonly Option[] | null>(null);
  const look = async (text: string) => {
    setFind(text);
    if (text.trim() === "") return setFound(null);
    setFound(await link.options(choice.id, text).catch(() => null));
  };
  // What was found keeps its names; what is chosen is told by the page.
  const told = new Map(choice.options.map((o) => [o.id, o]));
  const options = found?.map((o) => told.get(o.id) ?? o) ?? choice.options;
  return (
    <fieldset className={styles.choice}>
      <legend>
        {choice.name}
        {choice.where && <small>{choice.where}</small>}
      </legend>
      {choice.all > choice.options.length && (
        <label className={styles.find}>
          Find one of {choice.all}
          <input type="search" value={find} maxLength={100} onChange={(e) => void look(e.target.value)} />
        </label>
      )}
      <div className={styles.options}>
        {options.map((option) => (
          <div key={option.id}>
            <label className={option.chosen ? styles.taken : undefined}>
              {option.hasPicture && <img src={link.picture(choice.id, option.id)} alt="" loading="lazy" />}
              <b>{option.name}</b>
              {option.says && <small>{option.says}</small>}
              {option.conflict && !(may && option.together) && <small className={styles.why}>{option.conflict}</small>}
              <span>
                <span className={styles.amount}>{option.amount || (option.included ? "included" : "±0.00")}</span>
                {may && (
                  <input
                    type="radio"
                    name={choice.id}
                    checked={option.chosen}
                    disabled={option.conflict !== ""}
                    onChange={() => void props.onChoose(choice.id, option.id, true)}
                  />
                )}
              </span>
            </label>
            {may && option.together && (
              <button
                type="button"
                className={styles.quiet}
                onClick={() => void props.onChoose(choice.id, option.id, true, true)}
              >
                Choose it with {option.together}
              </button>
            )}
          </div>
        ))}
      </div>
    </fieldset>
  );
}
