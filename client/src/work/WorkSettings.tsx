import { useQuery } from "@tanstack/react-query";
import { ToggleButton, ToggleButtonGroup } from "@mui/material";
import type { Work } from "../api/client";
import { ask } from "../api/queries";
import { useJob } from "../job/JobContext";
import { once } from "../job/once";
import { ConditionChecks, Part, Setting, Typed } from "./Settings";
import { answerIn, answered } from "./edits";
import { useOwnCells } from "./ownCells";
import { supplies, useChoices } from "./choices";
import { Check } from "../controls/Check";
import { typedNumber } from "../controls/typedNumber";
import type { Option } from "../controls/Choice";
import { type UnitKind, countedUnits } from "../controls/units";
import styles from "./work.module.css";

/** Materials that can take the place of a work item's own. */
export function useProducts(item: Work): readonly Option[] {
  const { data } = useQuery(ask.bookProducts);
  const fit = data?.filter((p) => p.covers === item.covers) ?? [];
  // Of the same category first: whoever paints looks among paints.
  const like = fit.find((p) => p.id === item.product)?.category;
  const others = fit.filter((p) => p.category !== like).toSorted((a, b) => a.category.localeCompare(b.category));
  return [...fit.filter((p) => p.category === like), ...others].map((p) => [p.id, p.name, p.category || "others"]);
}

/** What was answered at each place where the work is done, in one list. */
function AnswersByPlace({ item, question }: { item: Work; question: Work["questions"][number] }) {
  const [open, { job, cells }] = useJob();
  const owns = useOwnCells(item.id);
  if (!owns) return null;
  return job.places
    .filter((p) => cells.has(`${item.id}/${p.id}`))
    .map((place) => {
      const was = owns.get(place.id)?.answers ?? [];
      return (
        <Typed
          key={place.id}
          label={`${place.name}, ${question.unit}`}
          value={answerIn(was, question)}
          hint={question.answer === "" ? question.otherwise : `as everywhere: ${question.answer}`}
          onKeep={(text) =>
            open.send({
              type: "setCells",
              work: item.id,
              field: "answers",
              at: [{ place: place.id, was, now: answered(was, question, text) }],
            } as never)
          }
        />
      );
    });
}

/** How a work item is done everywhere in this job, and what is said of it. */
export function WorkSettings({ item }: { item: Work }) {
  const [open, { job }] = useJob();
  const { rhythms } = job;
  const { usual } = job.round;
  const products = useProducts(item);
  const [roles, surfaces] = [useChoices("role"), useChoices("surface")];
  const send = (field: string, was: unknown, now: unknown) =>
    open.send({ type: "setWork", work: item.id, field, was, now } as never);
  const tell = (field: string, was: unknown, now: unknown) =>
    void open.tell({ type: "setWork", work: item.id, field, was, now } as never);
  const orNull = (text: string) => (text === "" ? null : text);
  const groups = [...new Set(item.choices.map((c) => c.group).filter(Boolean))];
  const pick = (add: string | null, drop: string[]) =>
    tell("picks", item.picks, [...item.picks.filter((p) => !drop.includes(p)), ...(add ? [add] : [])]);
  const own = <T,>(v: { own?: T | null }) => v.own ?? null;
  return (
    <>
      {item.coatsOffered.length > 0 && (
        <li>
          Coats
          <ToggleButtonGroup
            exclusive
            value={item.coats}
            aria-label="Coats"
            onChange={(_, coats: number | null) => coats && tell("coats", item.coats, coats)}
          >
            {item.coatsOffered.map((c) => (
              <ToggleButton key={c} value={c}>
                {c}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </li>
      )}
      {item.kind === "rate" && (
        <Typed
          label={item.pace ? "Pace, for this job" : "Pace, as in the Book"}
          value={item.paceShown}
          hint={
            item.pace
              ? "empty it to go back to the Book's pace"
              : item.coatsOffered.length > 0
                ? "for all coats together"
                : undefined
          }
          onKeep={(text) => send("pace", item.pace, orNull(text))}
        />
      )}
      {item.kind !== "priceOnly" && (
        <Typed
          label="Labour in all"
          value={item.labour ?? ""}
          hint="like 27 h, or 3 x 9 h for three people; instead of the pace"
          onKeep={(text) => send("labour", item.labour ?? null, orNull(text))}
        />
      )}
      <Part title="Unit price and least charge" open={item.unitPrice != null || item.least != null}>
        <Typed
          label={`Unit price, per ${item.unitPrice?.unit ?? (item.unit || "each")}`}
          value={item.unitPrice?.price ?? ""}
          hint={
            item.soldAt
              ? `as in the Book: ${item.soldAt}`
              : "it counts where the job, or its section, is priced by unit prices"
          }
          onKeep={(text) =>
            send(
              "unitPrice",
              item.unitPrice ?? null,
              text === ""
                ? null
                : {
                    ...item.unitPrice,
                    price: typedNumber(text),
                    unit: item.unitPrice?.unit ?? (item.unit || "each"),
                  },
            )
          }
        />
        <Typed
          label="Least charge in the job"
          value={item.least ?? ""}
          onKeep={(text) => send("least", item.least ?? null, text === "" ? null : typedNumber(text))}
        />
      </Part>
      {item.measureKind !== "count" && (
        <Setting
          label="Counted in"
          value={item.countedIn ?? ""}
          none={item.countedIn ? "as in the Book" : item.unit}
          options={countedUnits(item.measureKind as UnitKind)}
          onChoose={(now) => tell("countedIn", item.countedIn ?? null, now || null)}
        />
      )}
      {products.length > 0 && (
        <Setting
          label="Product"
          value={item.product ?? ""}
          options={products}
          onChoose={(now) => tell("product", item.ownProduct, now)}
        />
      )}
      {item.questions.map((q) => (
        <Typed
          key={q.id}
          label={`${q.text}, ${q.unit}${q.once ? ", once for the job" : ", unless said at a place"}`}
          value={q.answer}
          hint={q.answer === "" ? `unless you say: ${q.otherwise}` : undefined}
          onKeep={(typed) => send("answers", item.answers, answered(item.answers, q, typed))}
        />
      ))}
      {item.questions
        .filter((q) => !q.once)
        .map((q) => (
          <Part key={`${q.id}places`} title={`Answers to “${q.text}” by place`} open={false}>
            <AnswersByPlace item={item} question={q} />
          </Part>
        ))}
      {groups.map((group) => {
        const members = item.choices.filter((c) => c.group === group);
        return (
          <Setting
            key={group}
            label={group}
            value={members.find((m) => m.taken)?.id ?? ""}
            options={members.map((m) => [m.id, m.name] as const)}
            onChoose={(now) =>
              pick(
                now,
                members.map((m) => m.id),
              )
            }
          />
        );
      })}
      {item.choices
        .filter((c) => c.group === "")
        .map((c) => (
          <li key={c.id}>
            <Check on={c.taken} onTick={(on) => pick(on ? c.id : null, [c.id])}>
              with {c.name}
            </Check>
          </li>
        ))}
      {item.levels.length > 0 && (
        <Setting
          label="Difficulty"
          value={item.difficulty}
          none="as the rate stands"
          options={item.levels.map((l) => [l.name, `${l.name} × ${l.factor}`] as const)}
          onChoose={(now) => tell("difficulty", item.difficulty, now)}
        />
      )}
      {rhythms.length > 0 && (
        <Setting
          label="Rhythm"
          value={item.rhythm ?? ""}
          none={`as the job says: ${rhythms.find((r) => r.id === usual)?.name ?? "once"}`}
          options={[...rhythms.map((r) => [r.id, r.name] as const), [once, "once"]]}
          onChoose={(now) => tell("rhythm", item.rhythm ?? null, orNull(now))}
        />
      )}
      <Typed label="Colour" value={item.colour} onKeep={(text) => send("colour", item.colour, text)} />
      {item.hazard && (
        <Typed
          label={item.hazard}
          value={item.hazardAnswer}
          hint={
            item.hazardAnswer !== ""
              ? undefined
              : item.quantity
                ? "must be answered before work starts"
                : "to be answered where the work is included"
          }
          onKeep={(text) => send("hazardAnswer", item.hazardAnswer, text)}
        />
      )}
      <Part title="Conditions" open={item.conditions.length > 0}>
        <li className={styles.stack}>
          <ConditionChecks
            chosen={[item.conditions]}
            onChange={(now) => tell("conditions", item.conditions, now(item.conditions))}
          />
        </li>
      </Part>
      <Part
        title="Who, what on, how long"
        open={item.supply !== "we" || Boolean(item.role?.own) || item.rolesInstead.length > 0 || Boolean(item.surface)}
      >
        <Setting
          label="Who supplies"
          value={item.supply}
          options={supplies}
          onChoose={(now) => tell("supply", item.supply, now)}
        />
        {item.role && (
          <Setting
            label="Role"
            value={item.role.used}
            options={roles.map((r) => [r.id, r.name] as const)}
            onChoose={(now) => tell("role", item.role!.own, now)}
          />
        )}
        {item.roles.map((r) => (
          <Setting
            key={r.role}
            label={`Instead of ${r.name}`}
            value={r.instead ?? ""}
            none="nobody else"
            options={roles.filter((other) => other.id !== r.role).map((other) => [other.id, other.name] as const)}
            onChoose={(now) => {
              const others = item.rolesInstead.filter((x) => x.role !== r.role);
              const next = now ? [...others, { role: r.role, instead: now }] : others;
              tell("roles", item.rolesInstead.length ? item.rolesInstead : null, next.length ? next : null);
            }}
          />
        ))}
        <Setting
          label="Surface"
          value={item.surface ?? ""}
          none="as in the Book"
          options={surfaces.map((s) => [s.id, `${s.name}, ${s.says}`] as const)}
          onChoose={(now) => tell("surface", item.surface, orNull(now))}
        />
        <Typed
          label="Round the hours of a place up to, h"
          value={own(item.step) ?? ""}
          hint={item.step.book ? `the Book says ${item.step.book} h` : "not rounded unless you say"}
          onKeep={(text) => send("step", own(item.step), orNull(text))}
        />
        <Typed
          label="Allowance for each place, a provisional sum"
          value={item.allowance ?? ""}
          hint="stands instead of hours and goods"
          onKeep={(text) => send("allowance", item.allowance ?? null, orNull(text))}
        />
      </Part>
      <Part title="What is said" open={item.hidden}>
        <Typed label="Name over its column" value={item.name} onKeep={(text) => send("name", item.name, text)} />
        <Typed
          label="Customer reads"
          rows={2}
          value={item.wording}
          onKeep={(text) => send("wording", item.wording, text)}
        />
        <Typed
          label="Customer note"
          rows={2}
          value={own(item.customerNote) ?? item.customerNote.book}
          onKeep={(text) => send("customerNote", own(item.customerNote), text === item.customerNote.book ? null : text)}
        />
        <Typed
          label="Crew reads"
          rows={2}
          value={own(item.crewNote) ?? item.crewNote.book}
          onKeep={(text) => send("crewNote", own(item.crewNote), text === item.crewNote.book ? null : text)}
        />
        <li>
          <Check on={item.hidden} onTick={(on) => tell("hidden", item.ownHidden ?? null, on)}>
            hidden from the customer; its price is spread over the rest
          </Check>
        </li>
      </Part>
      <Part title="Waits for" open={item.waitsFor.length > 0}>
        <Typed
          label="Dries for, h"
          value={own(item.drying) ?? ""}
          hint={item.drying.book && item.drying.book !== "0" ? `the Book says ${item.drying.book} h` : undefined}
          onKeep={(text) => send("dryingHours", own(item.drying), orNull(text))}
        />
        <li className={styles.stack}>
          {job.work
            .filter((w) => w.id !== item.id)
            .map((w) => (
              <Check
                key={w.id}
                on={item.waitsFor.includes(w.id)}
                onTick={(on) =>
                  tell(
                    "waitsFor",
                    item.waitsFor,
                    on ? [...item.waitsFor, w.id] : item.waitsFor.filter((x) => x !== w.id),
                  )
                }
              >
                {w.section}: {w.name}
              </Check>
            ))}
        </li>
      </Part>
    </>
  );
}
