import { useQuery } from "@tanstack/react-query";
import { type Schemas, api } from "../api/client";
import { useJob } from "../job/JobContext";

/** How long lists from the Book are taken as they were asked for, in ms; an edit of the Book asks anew at once. */
export const bookHolds = 30_000;

/** Entries of the Book of some kind, by name. */
export function useChoices(kind: string): readonly Schemas["NamedEntry"][] {
  const { data } = useQuery({
    queryKey: ["book-choices"],
    queryFn: async () => (await api.GET("/api/book/choices")).data!,
    staleTime: bookHolds,
  });
  return data?.filter((c) => c.kind === kind) ?? [];
}

/** The entries that the job has, beside the Book's. */
export function usePinned(): readonly Schemas["PinnedView"][] | undefined {
  const [, { job, answers }] = useJob();
  return useQuery({
    queryKey: ["job-book", job.id, answers],
    queryFn: async () => (await api.GET("/api/jobs/{id}/book", { params: { path: { id: job.id } } })).data!,
    placeholderData: (kept) => kept,
  }).data;
}

export const supplies: readonly (readonly [Schemas["Supply"], string])[] = [
  ["we", "we do"],
  ["customerMaterial", "customer supplies the material"],
  ["customer", "customer does it"],
];
