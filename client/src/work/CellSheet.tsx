import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Cell, type Schemas, type Work, api } from "../api/client";
import { Field } from "../figure/Field";
import { Figure } from "../figure/Figure";
import { inWords } from "../figure/FigureText";
import { useJob } from "../job/JobContext";
import { ApplyTo } from "./ApplyTo";
import { ConditionChecks, Part, Setting, Typed } from "./Settings";
import { useProducts } from "./WorkSettings";
import { supplies, useChoices } from "./choices";
import { type CellAt, seen } from "./range";

const stateWords = {
  included: "included",
  excluded: "excluded: stated to customer and crew, priced at nothing",
  alternate: "an alternate: offered beside the price, and not in it",
};

/** One cell: how its figures came about, and what it has instead of its work item. */
export function CellSheet({ at, item, cell }: { at: CellAt; item: Work; cell: Cell | undefined }) {
  const [open, { job, cells, answers }] = useJob();
  const [applying, setApplying] = useState(false);
  const products = useProducts(item);
  const [roles, surfaces] = [useChoices("role"), useChoices("surface")];
  const place = job.places.find((p) => p.id === at.place)!;
  const { data } = useQuery({
    queryKey: ["cell", job.id, answers, at.work, at.place],
    queryFn: async () =>
      (
        await api.GET("/api/jobs/{id}/cells/{work}/{place}", {
          params: { path: { id: job.id, work: at.work, place: at.place } },
        })
      ).data!,
    placeholderData: (kept, query) =>
      query?.queryKey[4] === at.place && query.queryKey[3] === at.work ? kept : undefined,
  });
  const own: Partial<Schemas["Cell"]> = data?.own ?? {};
  const send = (field: string, was: unknown, now: unknown) =>
    open.send({ type: "setCell", ...at, field, was, now } as never);
  const set = (field: keyof Schemas["Cell"]) => (now: unknown) =>
    void open.tell({ type: "setCell", ...at, field, was: own[field] ?? null, now } as never);
  const keep = (field: keyof Schemas["Cell"]) => (text: string) =>
    send(field, own[field] ?? null, text === "" ? null : text);
  const orItem = (words: string) => `as the item: ${words}`;
  if (!cell)
    return (
      <section className="cellsheet" aria-label="This cell">
        <p className="note">
          None here. Include it (I), leave it out with a sentence (O), or offer it as an alternate (L).
        </p>
        <PlaceConditions place={place} bands={data?.bands ?? []} />
      </section>
    );
  return (
    <section className="cellsheet" aria-label="This cell">
      <p className="note">{stateWords[cell.state]}</p>
      <Field
        key={`n${at.work}${at.place}${cell.note ?? ""}`}
        label={cell.state === "excluded" ? "Say why, or what to leave" : "Note for customer and crew"}
        value={cell.note ?? ""}
        onKeep={(note) => open.send({ type: "setNote", ...at, was: cell.note ?? "", note: note.trim() })}
      />
      {data && data.lines.length > 0 && (
        <ul className="sentences" aria-label={`Workings of ${item.name} here`}>
          {data.lines.map((line) => (
            <li key={line.figure.path}>
              {line.label} <Figure figure={line.figure} label={line.label} />
              <span>{line.sentence}</span>
            </li>
          ))}
        </ul>
      )}
      {data && cell.state !== "excluded" && (
        <ul className="rows">
          <Setting
            label="Quantity from"
            value={own.source ?? ""}
            none={orItem(item.measureLabel)}
            options={data.sources.map((s) => [s.name, `${s.label}, ${inWords(s.figure)}`] as const)}
            onChoose={(now) =>
              void open.tell({ type: "setCell", ...at, field: "source", was: own.source ?? "", now } as never)
            }
          />
          <Typed
            label={`or typed${item.unit ? ", in " + item.unit : ""}`}
            value={own.quantity?.text ?? ""}
            hint={place.count > 1 ? "for one such place" : undefined}
            onKeep={(text) =>
              send(
                "quantity",
                own.quantity ?? null,
                text === "" ? null : { kind: item.measureKind, text, units: job.units },
              )
            }
          />
          {item.coatsOffered.length > 0 && (
            <Setting
              label="Coats here"
              value={own.coats ? String(own.coats) : ""}
              none={orItem(String(item.coats))}
              options={item.coatsOffered.map((c) => [String(c), String(c)] as const)}
              onChoose={(now) => set("coats")(now === "" ? null : Number(now))}
            />
          )}
          {products.length > 0 && (
            <Setting
              label="Product here"
              value={own.product ?? ""}
              none={orItem(products.find(([id]) => id === item.product)?.[1] ?? "")}
              options={products}
              onChoose={(now) => set("product")(now || null)}
            />
          )}
          <Typed
            label="Colour here"
            value={own.colour ?? ""}
            hint={item.colour ? orItem(item.colour) : undefined}
            onKeep={keep("colour")}
          />
          {item.kind === "rate" && (
            <Typed label="Pace here" value={own.pace ?? ""} hint={orItem(item.paceShown)} onKeep={keep("pace")} />
          )}
          {item.levels.length > 0 && (
            <Setting
              label="Difficulty here"
              value={own.difficulty ?? ""}
              none={orItem(item.difficulty || "as the rate stands")}
              options={item.levels.map((l) => [l.name, `${l.name} × ${l.factor}`] as const)}
              onChoose={(now) => set("difficulty")(now || null)}
            />
          )}
          {data.questions.map((q) => (
            <Typed
              key={q.id}
              label={`${q.text} here, ${q.unit}`}
              value={q.answer}
              hint={q.answer === "" ? "as the item" : undefined}
              onKeep={(text) => {
                const others = (own.answers ?? []).filter((a) => a.question !== q.id);
                return send(
                  "answers",
                  own.answers ?? [],
                  text === "" ? others : [...others, { question: q.id, value: text }],
                );
              }}
            />
          ))}
          <Part title="Conditions only here" open={(own.conditions?.length ?? 0) > 0}>
            <li className="stack">
              <ConditionChecks
                chosen={own.conditions ?? []}
                onChange={(now) =>
                  void open.tell({
                    type: "setCell",
                    ...at,
                    field: "conditions",
                    was: own.conditions ?? [],
                    now,
                  } as never)
                }
              />
            </li>
          </Part>
          <Part
            title="Who, what on, allowance"
            open={Boolean(own.supply ?? own.role ?? own.surface ?? own.allowance ?? own.crewNote)}
          >
            <Setting
              label="Who supplies here"
              value={own.supply ?? ""}
              none={orItem(supplies.find(([s]) => s === item.supply)![1])}
              options={supplies}
              onChoose={(now) => set("supply")(now || null)}
            />
            {item.role && (
              <Setting
                label="Role here"
                value={own.role ?? ""}
                none={orItem(roles.find((r) => r.id === item.role!.used)?.name ?? "")}
                options={roles.map((r) => [r.id, r.name] as const)}
                onChoose={(now) => set("role")(now || null)}
              />
            )}
            <Setting
              label="Surface here"
              value={own.surface ?? ""}
              none="as the item"
              options={surfaces.map((s) => [s.id, s.name] as const)}
              onChoose={(now) => set("surface")(now || null)}
            />
            <Typed
              label="Allowance here, a provisional sum"
              value={own.allowance ?? ""}
              hint={place.count > 1 ? "for one such place" : "stands instead of hours and goods"}
              onKeep={keep("allowance")}
            />
            <Typed
              label="Crew reads here"
              rows={2}
              value={own.crewNote ?? ""}
              hint="beside what the item says"
              onKeep={keep("crewNote")}
            />
          </Part>
        </ul>
      )}
      <p className="acts">
        <button className="act" onClick={() => setApplying(true)}>
          Apply to other places…
        </button>
        {cell.differs && (
          <button
            className="act"
            onClick={() =>
              void open.tell({
                type: "fallBack",
                work: [at.work],
                places: [at.place],
                was: seen([at.work], [at.place], cells),
              })
            }
          >
            Fall back to the item
          </button>
        )}
      </p>
      <PlaceConditions place={place} bands={data?.bands ?? []} />
      {applying && <ApplyTo at={at} item={item} onClose={() => setApplying(false)} />}
    </section>
  );
}

/** Conditions on all work of a place, or on one of its height bands. */
function PlaceConditions({ place, bands }: { place: Schemas["PlaceView"]; bands: readonly Schemas["BandView"][] }) {
  const [open] = useJob();
  const change = (now: Schemas["PlaceConditionView"][]) =>
    void open.tell({ type: "setPlace", place: place.id, field: "conditions", was: place.conditions, now } as never);
  return (
    <ul className="rows">
      {[{ name: "", label: "" }, ...bands].map((band) => (
        <Part
          key={band.name}
          title={`Conditions on ${band.label ? `${band.label} of ` : "all work in "}${place.name}`}
          open={place.conditions.some((c) => c.band === band.name)}
        >
          <li className="stack">
            <ConditionChecks
              chosen={place.conditions.filter((c) => c.band === band.name).map((c) => c.condition)}
              onChange={(now) =>
                change([
                  ...place.conditions.filter((c) => c.band !== band.name),
                  ...now.map((condition) => ({ condition, band: band.name })),
                ])
              }
            />
          </li>
        </Part>
      ))}
    </ul>
  );
}
