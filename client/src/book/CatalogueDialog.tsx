import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { counted } from "../controls/counted";
import styles from "./book.module.css";
import { bookChanged } from "./useEntry";

type Goods = Schemas["GoodsView"];

interface Props {
  /** Whether work is usually made of what is taken over. */
  forWork?: boolean;
  onClose: () => void;
}

/** The supplier's own catalogue: search it, put several goods in the basket, take them over into the Book. */
export function CatalogueDialog({ forWork = false, onClose }: Props) {
  const queries = useQueryClient();
  const [words, setWords] = useState("");
  const [category, setCategory] = useState("");
  const [basket, setBasket] = useState<readonly Goods[]>([]);
  const [work, setWork] = useState(forWork);
  const [taken, setTaken] = useState("");
  const [wrong, setWrong] = useState("");
  const asked = useDeferredValue(words);
  const { data: found } = useQuery(ask.catalogue(asked, category));
  const isIn = (goods: Goods) => basket.some((b) => b.code === goods.code);
  const put = (goods: Goods) => setBasket([...basket, goods]);
  const out = (goods: Goods) => setBasket(basket.filter((b) => b.code !== goods.code));
  async function take() {
    setWrong("");
    try {
      const { added, unfinished } = await change.takeGoods({ codes: basket.map((b) => b.code), work });
      await bookChanged(queries);
      setBasket([]);
      const left = unfinished
        ? `; ${unfinished === 1 ? "one says" : `${unfinished} say`} what is still to be filled in`
        : "";
      setTaken(`${counted(added.length, "entry", "entries")} added to the Book${left}.`);
    } catch (error) {
      setWrong((error as Error).message);
    }
  }
  return (
    <Dialog open onClose={onClose} aria-labelledby="catalogue-title" fullWidth maxWidth="lg">
      <DialogTitle id="catalogue-title">Supplier&apos;s catalogue</DialogTitle>
      <DialogContent className={styles.catalogue}>
        <section aria-label="Goods">
          {found?.isStandIn && (
            <p className={styles.standin}>
              <b>Stand-in.</b> {found.name}: it ships with the program and stands for a supplier&apos;s own.
            </p>
          )}
          <div className={styles.finding}>
            <Input
              bare
              find
              focus
              label="Find goods"
              placeholder="Name, code or price"
              value={words}
              onType={setWords}
              onKeyDown={(e) => {
                const first = found?.goods.find((g) => !isIn(g) && !g.have);
                if (e.key !== "Enter" || !first || asked !== words) return;
                e.preventDefault();
                put(first);
              }}
            />
            <Choice
              bare
              label="Heading"
              value={category}
              none="Every heading"
              options={(found?.categories ?? []).map((c) => [c, c] as const)}
              onChoose={setCategory}
            />
            <span className="note" role="status">
              {found &&
                (found.found > found.goods.length
                  ? `first ${found.goods.length} of ${found.found.toLocaleString("en")}`
                  : `${found.found} found`)}
            </span>
          </div>
          <ul className={styles.goods} aria-label="Goods found">
            {found?.goods.map((goods) => (
              <li key={goods.code}>
                <span>
                  {goods.name}
                  <small>
                    {goods.code} · {goods.supplier}
                    {goods.coverage && ` · ${goods.coverage}`}
                  </small>
                </span>
                <span className="n">{goods.packs}</span>
                {goods.have ? (
                  <span className="note">in the Book</span>
                ) : (
                  <button
                    className="link"
                    aria-label={`${isIn(goods) ? "Take out of" : "Put in"} the basket: ${goods.name}`}
                    onClick={() => (isIn(goods) ? out(goods) : put(goods))}
                  >
                    {isIn(goods) ? "Take out" : "Put in basket"}
                  </button>
                )}
              </li>
            ))}
          </ul>
          {found?.found === 0 && <p className="note">The supplier lists nothing like that.</p>}
        </section>
        <section aria-label="Basket" className={styles.basket}>
          <h3>Basket</h3>
          {basket.length === 0 && <p className="note">Nothing yet. Enter puts the first goods found in it.</p>}
          <ul>
            {basket.map((goods) => (
              <li key={goods.code}>
                <span>
                  {goods.name}
                  <small>{goods.packs}</small>
                </span>
                <button className="link" aria-label={`Leave out ${goods.name}`} onClick={() => out(goods)}>
                  Leave out
                </button>
              </li>
            ))}
          </ul>
          <Check on={work} onTick={setWork}>
            Make a rate of each, with these goods as its product; its role and pace are then to be filled in
          </Check>
          {taken && <p role="status">{taken}</p>}
          {wrong && (
            <p className="error" role="alert">
              {wrong}
            </p>
          )}
        </section>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
        <Button variant="contained" disabled={basket.length === 0} onClick={() => void take()}>
          {basket.length === 0 ? "Add to the Book" : `Add ${basket.length} to the Book`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
