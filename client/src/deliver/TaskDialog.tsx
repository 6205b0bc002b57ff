import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId, Refused, type Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { Ask } from "../controls/Ask";
import { Check } from "../controls/Check";
import { Choice } from "../controls/Choice";
import { Input } from "../controls/Input";
import { useJob } from "../job/JobContext";
import styles from "./schedule.module.css";
import { Moves, Troubles } from "./TaskSheet";

/** A task typed over, or written by hand; what it moves is seen before it is kept. */
export function TaskDialog({
  data,
  strip,
  task,
  keep,
  onClose,
}: {
  data: Schemas["TasksView"];
  strip: Schemas["StripAsked"];
  /** None for a new one. */
  task?: Schemas["TaskView"];
  keep: (preview: Schemas["TaskPreview"], told: boolean) => Promise<void>;
  onClose: () => void;
}) {
  const [, { job }] = useJob();
  const [id] = useState(() => task?.id ?? newId());
  const [typed, setTyped] = useState<Schemas["TaskTyped"]>({
    name: task?.name ?? "",
    at: task?.at ?? "",
    crew: task?.crew ?? data.crews[0]?.id ?? "",
    hours: task?.hours ?? "",
    day: task?.day ?? data.today,
    clock: task?.clock ?? "8:00",
    isPinned: task?.isPinned ?? false,
    links: task?.waits.map(({ after, lead, drying }) => ({ after, lead, drying })) ?? [],
  });
  const set = (part: Partial<Schemas["TaskTyped"]>) => setTyped({ ...typed, ...part });
  const asks = typed.name.trim() !== "";
  const {
    data: preview,
    error,
    isPlaceholderData,
  } = useQuery({ ...askJob.taskDraft(job, task ? "set" : "add", id, typed, strip), enabled: asks });
  const field = asks && error instanceof Refused ? error.field : "";
  const wrong = (of: string) => (field === of ? error!.message : undefined);
  const fields = ["name", "at", "hours", "day", "clock", "crew"];
  const called = (other: string) => data.tasks.find((t) => t.id === other)?.called ?? "";
  const free = data.tasks.filter((t) => t.id !== id && typed.links.every((l) => l.after !== t.id));
  return (
    <Ask
      title={task ? task.called : "Add a task"}
      apply={task ? "Change it" : "Add it"}
      width="md"
      ready={asks && !error && preview !== undefined && !isPlaceholderData}
      onApply={() => keep(preview!, false)}
      onClose={onClose}
    >
      <div className={styles.pair}>
        <Input
          label="What"
          focus={!task}
          maxLength={200}
          value={typed.name}
          wrong={wrong("name")}
          onType={(name) => set({ name })}
        />
        {task?.isMade ? (
          <p className={styles.fixed}>
            <span>Where</span> {task.at || "the whole job"}
          </p>
        ) : (
          <Input
            label="Where"
            maxLength={200}
            value={typed.at}
            wrong={wrong("at")}
            hint={data.places.length > 0 ? `like ${data.places.slice(0, 3).join(", ")}` : undefined}
            onType={(at) => set({ at })}
          />
        )}
        <Choice
          label="Crew"
          value={typed.crew}
          options={data.crews.map((c) => [c.id, c.name] as const)}
          wrong={wrong("crew")}
          onChoose={(crew) => set({ crew })}
        />
        <Input
          label="Labour hours"
          unit="h"
          inputMode="decimal"
          focus={task !== undefined}
          value={typed.hours}
          wrong={wrong("hours")}
          hint="of all its people together"
          onType={(hours) => set({ hours })}
        />
        <Input
          label="Begins on"
          placeholder="2027-01-31"
          value={typed.day}
          wrong={wrong("day")}
          onType={(day) => set({ day })}
        />
        <Input
          label="At"
          placeholder="8:00"
          value={typed.clock}
          wrong={wrong("clock")}
          onType={(clock) => set({ clock })}
        />
      </div>
      <Check on={typed.isPinned} onTick={(isPinned) => set({ isPinned })}>
        Promised: it says so when it cannot be kept
      </Check>
      <fieldset className={styles.links}>
        <legend>Waits for</legend>
        {typed.links.map((link, at) => {
          const put = (part: Partial<Schemas["LinkTyped"]>) =>
            set({ links: typed.links.map((l, i) => (i === at ? { ...l, ...part } : l)) });
          return (
            <div key={link.after}>
              <span>{called(link.after)}</span>
              <Input
                bare
                label={`Hours to dry after ${called(link.after)}`}
                placeholder="dries"
                unit="h to dry"
                inputMode="decimal"
                value={link.drying}
                onType={(drying) => put({ drying })}
              />
              <Input
                bare
                label={`Working hours after ${called(link.after)}`}
                placeholder="lead"
                unit="working h"
                inputMode="decimal"
                value={link.lead}
                onType={(lead) => put({ lead })}
              />
              <button
                type="button"
                className="act"
                aria-label={`Do not wait for ${called(link.after)}`}
                onClick={() => set({ links: typed.links.filter((_, i) => i !== at) })}
              >
                Remove
              </button>
            </div>
          );
        })}
        {free.length > 0 && (
          <Choice
            bare
            label="Wait for"
            value=""
            none={typed.links.length > 0 ? "also for …" : "choose a task"}
            options={free.map((t) => [t.id, t.called] as const)}
            onChoose={(after) => after && set({ links: [...typed.links, { after, lead: "", drying: "" }] })}
          />
        )}
      </fieldset>
      {asks && error && !fields.includes(field) && (
        <p className="error" role="alert">
          {error.message}
        </p>
      )}
      {asks && !error && preview && (
        <div className={styles.would}>
          <p role="status">
            <b>{preview.days}</b>
            {preview.says.map((says) => (
              <small key={says}> {says}</small>
            ))}
          </p>
          <Moves moves={preview.moves} />
          <Troubles preview={preview} />
        </div>
      )}
    </Ask>
  );
}
