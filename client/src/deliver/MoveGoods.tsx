import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { Ask } from "../controls/Ask";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { Radios } from "../controls/Radios";

type Move = Schemas["StockMove"];

interface Props {
  row: Schemas["GoodsRow"];
  works: Schemas["WorkToWrite"][];
  today: string;
  onMove: (move: Schemas["MoveGoods"]) => Promise<void>;
  onClose: () => void;
}

/** Goods of a job move: kept for it or not, used, put back, or come without an order. */
export function MoveGoods({ row, works, today, onMove, onClose }: Props) {
  const may: Record<Exclude<Move, "counted">, string> = {
    reserved: row.mayReserve,
    used: row.mayUse,
    putBack: row.mayPutBack,
    released: row.mayUse,
    received: "",
  };
  const [id] = useState(newId);
  const [move, setMove] = useState<Exclude<Move, "counted">>(
    row.mayUse ? "used" : row.mayReserve ? "reserved" : "used",
  );
  const [quantity, setQuantity] = useState(may[move]);
  const [paid, setPaid] = useState("");
  const [work, setWork] = useState("");
  const [place, setPlace] = useState("");
  const [day, setDay] = useState(today);
  const [words, setWords] = useState("");
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const of = works.find((w) => w.id === work);
  return (
    <Ask
      title={row.name}
      apply="Write it"
      width="xs"
      ready={quantity.trim() !== "" && (move !== "received" || paid.trim() !== "")}
      onApply={() =>
        onMove({
          id,
          move,
          goods: row.goods,
          quantity,
          day,
          paid: move === "received" ? paid : "",
          words,
          work: move === "used" && work !== "" ? work : null,
          place: move === "used" && place !== "" ? place : null,
        })
      }
      onRefused={(error) => {
        const field = error instanceof Refused ? error.field : "";
        setWrong({ [field]: error.message });
        return ["quantity", "paid", "day", "words", "work", "place"].includes(field);
      }}
      onClose={onClose}
    >
      <p className="note">
        {[
          row.need && `${row.need} needed`,
          row.used && `${row.used} used`,
          row.reserved && `${row.reserved} kept for this job`,
          row.stock,
        ]
          .filter(Boolean)
          .join(" · ")}
      </p>
      <Radios
        label="What happened"
        value={move}
        options={[
          { value: "used" as const, words: "Used on this job" },
          { value: "putBack" as const, words: "Put back", small: "left over; it lowers the cost of the job" },
          { value: "reserved" as const, words: "Keep for this job", small: "of what is free in stock" },
          { value: "released" as const, words: "Keep no longer", small: "it is free for other jobs" },
          { value: "received" as const, words: "Came without an order", small: "bought over the counter, say" },
        ]}
        onChoose={(now) => {
          setMove(now);
          setQuantity(may[now]);
        }}
      />
      <Input
        label="How much"
        unit={row.unit || "pieces"}
        inputMode="decimal"
        focus
        value={quantity}
        wrong={wrong["quantity"]}
        onType={setQuantity}
      />
      {move === "received" && (
        <Input
          label="Paid"
          inputMode="decimal"
          value={paid}
          wrong={wrong["paid"]}
          hint="for all of it; 0 where it was free"
          onType={setPaid}
        />
      )}
      {move === "used" && (
        <Choice
          label="On"
          value={work}
          none="the job as a whole"
          options={works.map((w) => [w.id, w.name] as const)}
          wrong={wrong["work"]}
          onChoose={(now) => {
            setWork(now);
            setPlace("");
          }}
        />
      )}
      {move === "used" && of && (
        <Choice
          label="Where"
          value={place}
          none="all of it"
          options={of.places.map((p) => [p.id, p.name] as const)}
          wrong={wrong["place"]}
          onChoose={setPlace}
        />
      )}
      <Input label="Day" placeholder="2027-01-31" value={day} wrong={wrong["day"]} onType={setDay} />
      <Input
        label="Note"
        maxLength={500}
        value={words}
        wrong={wrong["words"]}
        hint={move === "used" ? "say why where more is taken than is there" : undefined}
        onType={setWords}
      />
    </Ask>
  );
}
