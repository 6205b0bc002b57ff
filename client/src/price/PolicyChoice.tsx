import { useQuery } from "@tanstack/react-query";
import { ask } from "../api/queries";
import { Choice } from "../controls/Choice";
import { useJob } from "../job/JobContext";

/** The firm's price policy that the job takes; what it bends stands at each term. */
export function PolicyChoice() {
  const [open, { job }] = useJob();
  const { data } = useQuery(ask.policies);
  const own = job.policy;
  const bent = own?.bent.length ?? 0;
  return (
    <div className="pad">
      <Choice
        label="Price policy"
        value={own?.id ?? ""}
        none={own ? undefined : "none taken"}
        lost={own ? `${own.name}, as it was taken` : undefined}
        options={data?.all.map((p) => [p.id, p.name] as const) ?? []}
        hint={own && bent > 0 ? `bent in ${bent}: each stands with ≠` : undefined}
        onChoose={(id) => {
          const policy = data!.all.find((p) => p.id === id);
          if (policy) void open.tell({ type: "takePolicy", was: own?.id ?? null, policy } as never);
        }}
      />
    </div>
  );
}
