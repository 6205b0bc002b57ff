import { newId, type Work } from "../api/client";
import { useJob } from "../job/JobContext";
import { Part, Setting, Typed } from "./Settings";

/** The section that a work item stands under: another, a new one, its name and its place among the sections. */
export function SectionSettings({ item }: { item: Work }) {
  const [open, { job }] = useJob();
  const at = job.sections.findIndex((s) => s.id === item.sectionId);
  const used = job.sections.filter((s) => job.work.some((w) => w.sectionId === s.id));
  const among = used.findIndex((s) => s.id === item.sectionId);
  const last = (section: string) => job.work.filter((w) => w.sectionId === section && w.id !== item.id).at(-1)?.id;
  const moveSection = (after: string | null) => void open.tell({ type: "moveSection", section: item.sectionId, after });
  return (
    <Part title="Section" open={false}>
      <Setting
        label="Stands under"
        value={item.sectionId}
        options={used.map((s) => [s.id, s.name || "no section"] as const)}
        onChoose={(section) =>
          void open.tell({
            type: "moveWork",
            work: item.id,
            section,
            after: last(section) ?? null,
            name: null,
          })
        }
      />
      <Typed
        key={item.sectionId}
        label="Or under a new section"
        value=""
        onKeep={(name) => open.send({ type: "moveWork", work: item.id, section: newId(), after: null, name })}
      />
      <Typed
        key={`n${item.sectionId}`}
        label="Name of this section"
        value={item.section}
        onKeep={(now) =>
          open.send({
            type: "setSection",
            section: item.sectionId,
            field: "name",
            was: job.sections[at]?.name ?? "",
            now: now.trim(),
          })
        }
      />
      <li className="acts">
        <button className="act" disabled={among <= 0} onClick={() => moveSection(used[among - 2]?.id ?? null)}>
          Section left
        </button>
        <button
          className="act"
          disabled={among === used.length - 1}
          onClick={() => moveSection(used[among + 1]?.id ?? null)}
        >
          Section right
        </button>
      </li>
    </Part>
  );
}
