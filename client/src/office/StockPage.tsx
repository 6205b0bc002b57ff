import { Button } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { Link } from "react-router";
import { newId, Refused, type Schemas } from "../api/client";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";
import { useTold } from "../controls/useTold";
import styles from "./stock.module.css";

type Goods = Schemas["GoodsKey"];

const keyOf = (goods: Goods) => `${goods.material}/${goods.colour}/${goods.unit}`;

/** What is in stock, for whom it is kept, what it is worth; it is counted here. */
export function StockPage() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.stock);
  const [find, setFind] = useState("");
  const [open, setOpen] = useState("");
  const [moving, setMoving] = useState<{ row: Schemas["StockRow"] | null; move: "counted" | "received" } | null>(null);
  if (!data) return <main className="page" aria-busy="true" aria-label="Opening the stock list" />;
  const words = find.toLowerCase().split(" ").filter(Boolean);
  const rows = data.rows.filter((r) => words.every((w) => r.name.toLowerCase().includes(w)));
  const did = async (answer: Promise<Schemas["StockView"]>) => {
    queries.setQueryData(ask.stock.queryKey, await answer);
    await Promise.all([
      queries.invalidateQueries({ queryKey: ["stock", "moves"] }),
      queries.invalidateQueries({ queryKey: ["deliver"] }),
    ]);
  };
  return (
    <main className={`page ${styles.stock}`}>
      <h1>
        Stock <Link to="/office">Office</Link>
      </h1>
      <section className="panel" aria-label="Stock list">
        <header>
          <h2>Stock list</h2>
          <span className="note">
            {data.rows.length > 0 && `worth ${data.value} at the moving average of what was paid`}
          </span>
          <a className="act" href="/api/stock/stock.csv" download>
            CSV
          </a>
          <Button variant="contained" onClick={() => setMoving({ row: null, move: "counted" })}>
            Add goods
          </Button>
        </header>
        {data.rows.length === 0 ? (
          <p className="pad note">
            Nothing was ever in stock. Goods come here with the orders of a job, or are added: counted on the shelf, or
            bought without an order.
          </p>
        ) : (
          <>
            <Input find bare label="Find goods" placeholder="Find goods" value={find} onType={setFind} />
            <table>
              <thead>
                <tr>
                  <th scope="col">Goods</th>
                  <th scope="col">There</th>
                  <th scope="col">Kept for jobs</th>
                  <th scope="col">Free</th>
                  <th scope="col">Worth a unit</th>
                  <th scope="col">Worth in all</th>
                  <th scope="col">
                    <span className={styles.unseen}>What is done</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <Fragment key={keyOf(row.goods)}>
                    <tr>
                      <th scope="row">{row.name}</th>
                      <td className={row.isShort ? styles.short : undefined}>
                        {row.onHand}
                        {row.isShort && <small>more was taken than was there: count it</small>}
                      </td>
                      <td>
                        {row.reserved.map((kept) => (
                          <small key={kept}>{kept}</small>
                        ))}
                      </td>
                      <td>{row.free}</td>
                      <td>{row.average}</td>
                      <td>{row.value}</td>
                      <td className={styles.acts}>
                        <button
                          type="button"
                          className="act"
                          aria-label={`Count ${row.name}`}
                          onClick={() => setMoving({ row, move: "counted" })}
                        >
                          Count
                        </button>
                        <button
                          type="button"
                          className="act"
                          aria-label={`${row.name} came`}
                          onClick={() => setMoving({ row, move: "received" })}
                        >
                          Came
                        </button>
                        <button
                          type="button"
                          className="act"
                          aria-expanded={open === keyOf(row.goods)}
                          aria-label={`History of ${row.name}`}
                          onClick={() => setOpen(open === keyOf(row.goods) ? "" : keyOf(row.goods))}
                        >
                          History
                        </button>
                      </td>
                    </tr>
                    {open === keyOf(row.goods) && (
                      <tr>
                        <td colSpan={7}>
                          <History goods={row.goods} name={row.name} did={did} />
                        </td>
                      </tr>
                    )}
                  </Fragment>
                ))}
              </tbody>
            </table>
            {rows.length === 0 && <p className="pad note">Nothing is called like that.</p>}
          </>
        )}
      </section>
      {moving && <MoveStock today={data.today} {...moving} did={did} onClose={() => setMoving(null)} />}
    </main>
  );
}

/** Everything that happened to some goods, the latest first. */
function History({
  goods,
  name,
  did,
}: {
  goods: Goods;
  name: string;
  did: (answer: Promise<Schemas["StockView"]>) => Promise<void>;
}) {
  const { data } = useQuery(ask.stockMoves(goods));
  const [wrong, tell] = useTold();
  if (!data) return <p aria-busy="true" aria-label="Opening the history" />;
  return (
    <section aria-label={`What happened to ${name}`}>
      {wrong && (
        <p className="error" role="alert">
          {wrong}
        </p>
      )}
      <ul className={styles.moves}>
        {data.map((move) => (
          <li key={move.id}>
            <span>{move.day}</span>
            <span>
              {move.what} <small>{move.detail}</small>
            </span>
            {move.mayTakeBack && (
              <button
                type="button"
                className="link"
                aria-label={`Take back: ${move.what}`}
                onClick={() => tell(did(change.takeStockBack(move.id, newId())))}
              >
                take back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Goods are counted, or came for no job; new ones are chosen from the Book. */
function MoveStock({
  row,
  move: asked,
  today,
  did,
  onClose,
}: {
  row: Schemas["StockRow"] | null;
  move: "counted" | "received";
  today: string;
  did: (answer: Promise<Schemas["StockView"]>) => Promise<void>;
  onClose: () => void;
}) {
  const { data: choices = [] } = useQuery(ask.goods);
  const [id] = useState(newId);
  const [chosen, setChosen] = useState("");
  const [colour, setColour] = useState("");
  const [move, setMove] = useState(asked);
  const [quantity, setQuantity] = useState("");
  const [paid, setPaid] = useState("");
  const [day, setDay] = useState(today);
  const [words, setWords] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const choice = choices.find((c) => keyOf(c.goods) === chosen);
  const goods = row?.goods ?? (choice && { ...choice.goods, colour });
  return (
    <Ask
      title={row ? row.name : "Add goods"}
      apply="Write it"
      width="xs"
      ready={goods !== undefined && quantity.trim() !== "" && (move === "counted" || paid.trim() !== "")}
      onApply={() =>
        did(change.moveStock({ id, move, goods: goods!, quantity, day, paid, words, work: null, place: null }))
      }
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["quantity", "paid", "day", "words", "goods", "colour"].includes(field);
      }}
      onClose={onClose}
    >
      {!row && (
        <>
          <Choice
            label="Goods of the Book"
            value={chosen}
            none="choose"
            options={choices.map((c) => [keyOf(c.goods), c.name] as const)}
            wrong={wrong["goods"]}
            onChoose={(key) => {
              setChosen(key);
              setColour(choices.find((c) => keyOf(c.goods) === key)?.goods.colour ?? "");
            }}
          />
          <Input
            label="Colour"
            maxLength={120}
            value={colour}
            wrong={wrong["colour"]}
            hint="empty for none: each colour is counted by itself"
            onType={setColour}
          />
        </>
      )}
      <Radios
        label="What happened"
        value={move}
        options={[
          { value: "counted" as const, words: "Counted", small: "what is there now, whatever was known" },
          { value: "received" as const, words: "Came", small: "bought for no job" },
        ]}
        onChoose={setMove}
      />
      <Input
        label={move === "counted" ? "There are" : "How much"}
        unit={row ? row.goods.unit || "pieces" : (choice?.unit ?? "")}
        inputMode="decimal"
        focus={row !== null}
        value={quantity}
        wrong={wrong["quantity"]}
        hint={row && move === "counted" ? `known so far: ${row.onHand}` : undefined}
        onType={setQuantity}
      />
      {(move === "received" || !row?.average) && (
        <Input
          label={move === "received" ? "Paid" : "Worth"}
          inputMode="decimal"
          value={paid}
          wrong={wrong["paid"]}
          hint={
            move === "received"
              ? "for all of it; 0 where it was free"
              : "what was found, for all of it; empty for nothing"
          }
          onType={setPaid}
        />
      )}
      <Input label="Day" placeholder="2027-01-31" value={day} wrong={wrong["day"]} onType={setDay} />
      <Input label="Note" maxLength={500} value={words} wrong={wrong["words"]} onType={setWords} />
    </Ask>
  );
}
