import { type ReactNode, useState } from "react";
import { newId } from "../api/client";
import { Choice } from "../controls/Choice";
import { freeName } from "../controls/freeName";
import { useTold } from "../controls/useTold";
import styles from "./office.module.css";

interface One {
  id: string;
  name: string;
}

/** What the firm gives names to, and of which new jobs take one. */
interface Named<T extends One> {
  all: T[];
  usual: string;
}

/** One of such a set at a time: which it is, and what is done to it and to the set. */
export function useNamedSet<T extends One>(data: Named<T> | undefined, keep: (now: Named<T>) => Promise<unknown>) {
  const [shown, setShown] = useState("");
  const [wrong, tell] = useTold();
  const one = data?.all.find((o) => o.id === shown) ?? data?.all.find((o) => o.id === data.usual);
  const save = async (part: Partial<Named<T>>) => {
    await keep({ ...data!, ...part });
  };
  return {
    one,
    data,
    wrong,
    tell,
    show: setShown,
    saveOne: (now: Partial<T>) => save({ all: data!.all.map((o) => (o.id === one!.id ? { ...o, ...now } : o)) }),
    copy: () => {
      const id = newId();
      const name = freeName(`${one!.name}, copy`, (n) => data!.all.some((o) => o.name === n));
      tell(save({ all: [...data!.all, { ...one!, id, name }] }).then(() => setShown(id)));
    },
    makeUsual: () => tell(save({ usual: one!.id })),
    remove: () => tell(save({ all: data!.all.filter((o) => o.id !== one!.id) }).then(() => setShown(""))),
  };
}

type Held<T extends One> = ReturnType<typeof useNamedSet<T>>;

/** Which of the set is shown. */
export function WhichOne<T extends One>({ label, set, usual }: { label: string; set: Held<T>; usual?: string }) {
  const { data, one, show } = set;
  return (
    <Choice
      label={label}
      value={one!.id}
      options={data!.all.map(
        (o) => [o.id, o.id === data!.usual ? `${o.name} (${usual ?? "new jobs"})` : o.name] as const,
      )}
      onChoose={show}
    />
  );
}

/** The panel of such a set: its head with what copies the one that is shown, and what was refused. */
export function NamedPanel<T extends One>(props: {
  name: string;
  note: string;
  copy: string;
  set: Held<T>;
  /** What stands beneath the refusal. */
  head: ReactNode;
  children?: ReactNode;
}) {
  const { name, set } = props;
  return (
    <section className={`panel ${styles.wide}`} aria-label={name}>
      <header>
        <h2>{name}</h2>
        <span className="note">{props.note}</span>
        <button className={`act ${styles.end}`} onClick={set.copy}>
          {props.copy}
        </button>
      </header>
      <div className="pad">
        {set.wrong && (
          <p className="error" role="alert">
            {set.wrong}
          </p>
        )}
        {props.head}
      </div>
      {props.children}
    </section>
  );
}

/** What only one that is not the usual one can have done to it. */
export function UsualOrNot<T extends One>({ set, make }: { set: Held<T>; make?: string }) {
  if (set.one!.id === set.data!.usual) return null;
  return (
    <p>
      <button className="act" onClick={set.makeUsual}>
        {make ?? "New jobs take this one"}
      </button>{" "}
      <button className="act" onClick={set.remove}>
        Remove it
      </button>
    </p>
  );
}
