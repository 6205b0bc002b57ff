import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { type Schemas, api } from "./client";

/** A job at a version: what is asked of it is asked anew when it has moved on, and the last answer stands until then. */
interface At {
  id: string;
  version: number;
}

const of = (job: At) => ({ path: { id: job.id } });

/** What is asked of one job. */
export const askJob = {
  /** The price, or that of one occurrence of a round. */
  price: (job: At, occurrence = "") =>
    queryOptions({
      queryKey: ["price", job.id, job.version, occurrence],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/price", {
            params: { ...of(job), query: occurrence === "" ? {} : { occurrence } },
          })
        ).data!,
      placeholderData: keepPreviousData,
    }),
  /** The year of a round. */
  year: (job: At) =>
    queryOptions({
      queryKey: ["year", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/price/year", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** A rhythm with other frequencies, and one that was typed. */
  frequencies: (job: At, rhythm: string, times: string) =>
    queryOptions({
      queryKey: ["frequencies", job.id, job.version, rhythm, times],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/price/year/{rhythm}/frequencies", {
            params: { path: { id: job.id, rhythm }, query: { times } },
          })
        ).data!,
      placeholderData: keepPreviousData,
    }),
  /** What each way of pricing would bring. */
  ways: (job: At) =>
    queryOptions({
      queryKey: ["ways", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/price/ways", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** What pieces of one kind are worth, from one of them on. */
  worth: (job: At, kind: Schemas["PieceKind"], from: number, take: number) =>
    queryOptions({
      queryKey: ["worth", job.id, kind, from, take, job.version],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/price/worth", { params: { ...of(job), query: { kind, from, take } } })).data!,
      placeholderData: keepPreviousData,
    }),
  /** What is offered beside the price, and what those that are chosen come to together. */
  options: (job: At, taken: readonly string[]) =>
    queryOptions({
      queryKey: ["options", job.id, job.version, taken],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/price/options", {
            params: { ...of(job), query: { taken: taken.join(",") } },
          })
        ).data!,
      placeholderData: keepPreviousData,
    }),
  /** Choices, and what those that are taken come to. */
  choices: (job: At) =>
    queryOptions({
      queryKey: ["choices", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/price/choices", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** Options of a choice that hold what is typed, from one of them on. */
  choiceOptions: (job: At, choice: string, find: string, from: number, take: number) =>
    queryOptions({
      queryKey: ["choices", job.id, job.version, choice, find, from, take],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/price/choices/{choice}", {
            params: { path: { id: job.id, choice }, query: { find, from, take } },
          })
        ).data!,
      placeholderData: keepPreviousData,
    }),
  /** What other firms ask for sections, side by side. */
  quotes: (job: At) =>
    queryOptions({
      queryKey: ["quotes", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/price/quotes", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** Variants side by side. */
  variants: (job: At) =>
    queryOptions({
      queryKey: ["variants", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/price/variants", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** A variant against the job as it stands. */
  variant: (job: At, variant: string) =>
    queryOptions({
      queryKey: ["variant", job.id, job.version, variant],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/price/variants/{variant}", { params: { path: { id: job.id, variant } } })).data!,
      placeholderData: keepPreviousData,
    }),
  /** How sure it is, by so many outcomes; the asking can be stopped. */
  sure: (job: At, draws: number) =>
    queryOptions({
      queryKey: ["sure", job.id, draws, job.version],
      queryFn: async ({ signal }) =>
        (await api.GET("/api/jobs/{id}/price/sure", { params: { ...of(job), query: { draws } }, signal })).data!,
      placeholderData: keepPreviousData,
    }),
  /** The same job as another estimator would have it. */
  second: (job: At, book: string, harder: string, slower: string) =>
    queryOptions({
      queryKey: ["second", job.id, job.version, book, harder, slower],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/price/second", {
            params: { ...of(job), query: { book, harder, slower } },
          })
        ).data!,
      placeholderData: keepPreviousData,
      retry: false,
    }),
  /** What a typed price would lead to. */
  typed: (job: At, what: Schemas["SolveFor"] | undefined, value: string, area: string | undefined) =>
    queryOptions({
      queryKey: ["typed", job.id, job.version, what, value, area],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/price/typed", {
            params: { ...of(job), query: { what: what!, value, area } },
          })
        ).data!,
      placeholderData: keepPreviousData,
      retry: false,
    }),
  proposal: (job: At) =>
    queryOptions({
      queryKey: ["proposal", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/proposal", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** How the proposal stands; it changes by what is recorded of it, and not by edits of the job. */
  stands: (job: At) =>
    queryOptions({
      queryKey: ["stands", job.id],
      queryFn: async () => (await api.GET("/api/jobs/{id}/revisions/stands", { params: of(job) })).data!,
    }),
  /** How delivery stands, in a few words. */
  deliverStands: (job: At) =>
    queryOptions({
      queryKey: ["deliver", job.id, "stands"],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver/stands", { params: of(job) })).data!,
    }),
  /** What was accepted is delivered: the work order, what is done, hours. It changes by what happens, and not by edits of the estimate. */
  deliver: (job: At) =>
    queryOptions({
      queryKey: ["deliver", job.id, "all"],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver", { params: of(job) })).data!,
    }),
  /** Hours used against hours allowed, and what they teach the Book. */
  hoursUsed: (job: At) =>
    queryOptions({
      queryKey: ["deliver", job.id, "hours"],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver/hours-used", { params: of(job) })).data!,
    }),
  /** What was billed and paid. */
  invoices: (job: At) =>
    queryOptions({
      queryKey: ["deliver", job.id, "invoices"],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver/invoices", { params: of(job) })).data!,
    }),
  /** The visits of a round; null where nothing comes back. */
  visits: (job: At) =>
    queryOptions({
      // The days for which they are planned are edits of the job.
      queryKey: ["deliver", job.id, "visits", job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver/visits", { params: of(job) })).data ?? null,
      placeholderData: keepPreviousData,
    }),
  /** What putting a visit on another day would do. */
  visitMove: (job: At, task: string, day: string) =>
    queryOptions({
      queryKey: ["deliver", job.id, "visitMove", job.version, task, day],
      queryFn: async () =>
        (
          await api.POST("/api/jobs/{id}/deliver/schedule/move", {
            params: of(job),
            body: { strip: { from: "", byCrew: false }, task, day, by: 0 },
          })
        ).data!,
      placeholderData: keepPreviousData,
      retry: false,
    }),
  /** What it needs against stock and orders. */
  buying: (job: At) =>
    queryOptions({
      queryKey: ["deliver", job.id, "buying"],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver/buying", { params: of(job) })).data!,
    }),
  /** Its tasks in time, on a strip of days. */
  tasks: (job: At, strip: Schemas["StripAsked"]) =>
    queryOptions({
      queryKey: ["deliver", job.id, "schedule", job.version, strip],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/deliver/schedule", {
            params: { ...of(job), query: { from: strip.from, byCrew: strip.byCrew } },
          })
        ).data!,
      placeholderData: keepPreviousData,
    }),
  /** What making a task another, or adding it, would do. */
  taskDraft: (job: At, is: "set" | "add", task: string, typed: Schemas["TaskTyped"], strip: Schemas["StripAsked"]) =>
    queryOptions({
      queryKey: ["deliver", job.id, "taskDraft", job.version, is, task, typed, strip],
      queryFn: async () =>
        is === "set"
          ? (await api.POST("/api/jobs/{id}/deliver/schedule/set", { params: of(job), body: { strip, task, typed } }))
              .data!
          : (
              await api.POST("/api/jobs/{id}/deliver/schedule/add", {
                params: of(job),
                body: { strip, id: task, typed },
              })
            ).data!,
      placeholderData: keepPreviousData,
      retry: false,
    }),
  /** What laying the work order out would do. */
  layOut: (job: At, lay: Schemas["LayOutTasks"]) =>
    queryOptions({
      queryKey: ["deliver", job.id, "layOut", job.version, lay],
      queryFn: async () =>
        (await api.POST("/api/jobs/{id}/deliver/schedule/lay-out", { params: of(job), body: lay })).data!,
      placeholderData: keepPreviousData,
      retry: false,
    }),
  /** Snags, and whether the customer has taken the work. */
  completion: (job: At) =>
    queryOptions({
      queryKey: ["deliver", job.id, "completion"],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver/completion", { params: of(job) })).data!,
    }),
  /** The mail that would bring an invoice to the customer, or remind of it. */
  invoiceMessage: (job: At, invoice: string, reminds: boolean) =>
    queryOptions({
      queryKey: ["deliver", job.id, "invoiceMessage", invoice, reminds],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/deliver/invoices/{invoice}/message", {
            params: { path: { id: job.id, invoice }, query: { reminds } },
          })
        ).data!,
    }),
  /** What an order would come to. */
  orderDraft: (job: At, wanted: Schemas["OrderWanted"]) =>
    queryOptions({
      queryKey: ["deliver", job.id, "orderDraft", wanted],
      queryFn: async () =>
        (await api.POST("/api/jobs/{id}/deliver/buying/orders/draft", { params: of(job), body: wanted })).data!,
      retry: false,
    }),
  /** The mail that would bring an order to its supplier. */
  orderMessage: (job: At, order: string) =>
    queryOptions({
      queryKey: ["deliver", job.id, "orderMessage", order],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/deliver/buying/orders/{order}/message", {
            params: { path: { id: job.id, order } },
          })
        ).data!,
    }),
  /** In what the job differs from what was agreed, and its change orders. It changes with every edit of the estimate. */
  changes: (job: At) =>
    queryOptions({
      queryKey: ["deliver", job.id, "changes", job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/deliver/changes", { params: of(job) })).data!,
    }),
  /** What a change order would come to. */
  changeDraft: (job: At, wanted: Schemas["ChangeWanted"]) =>
    queryOptions({
      queryKey: ["deliver", job.id, "changeDraft", job.version, wanted],
      queryFn: async () =>
        (await api.POST("/api/jobs/{id}/deliver/changes/draft", { params: of(job), body: wanted })).data!,
      retry: false,
    }),
  /** What an invoice would come to. */
  draft: (job: At, wanted: Schemas["InvoiceWanted"]) =>
    queryOptions({
      queryKey: ["deliver", job.id, "draft", wanted],
      queryFn: async () =>
        (await api.POST("/api/jobs/{id}/deliver/invoices/draft", { params: of(job), body: wanted })).data!,
      retry: false,
    }),
  /** What was sent, and how it stands. */
  revisions: (job: At) =>
    queryOptions({
      queryKey: ["revisions", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/revisions", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** What the customer chose of a revision, against the job as it stands. */
  chosen: (job: At, revision: string, selection: number) =>
    queryOptions({
      queryKey: ["chosen", job.id, job.version, revision, selection],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/revisions/{revision}/chosen", {
            params: { path: { id: job.id, revision } },
          })
        ).data!,
      placeholderData: keepPreviousData,
    }),
  /** What was asked about it, and answered. */
  questions: (job: At) =>
    queryOptions({
      queryKey: ["questions", job.id],
      queryFn: async () => (await api.GET("/api/jobs/{id}/revisions/questions", { params: of(job) })).data!,
    }),
  /** A revision against another, or against the job as it stands. */
  compared: (job: At, from: string, to: string | null) =>
    queryOptions({
      queryKey: ["compared", job.id, to === null ? job.version : 0, from, to],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/revisions/compared", {
            params: { ...of(job), query: to === null ? { from } : { from, to } },
          })
        ).data!,
      placeholderData: keepPreviousData,
    }),
  /** One of the firm's messages with its figures: of the job as it stands, or of a revision that was sent. */
  message: (job: At, text: string | null, revision: string | null, day = "", way: Schemas["MessageWay"] = "mail") =>
    queryOptions({
      queryKey: ["message", job.id, revision === null ? job.version : 0, text, revision, day, way],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/revisions/message", {
            params: {
              ...of(job),
              query: {
                ...(text === null ? {} : { text }),
                ...(revision === null ? {} : { revision }),
                way,
                ...(day === "" ? {} : { day }),
              },
            },
          })
        ).data!,
    }),
  /** The customer's other jobs, whose estimates can go out with the proposal. */
  further: (job: At) =>
    queryOptions({
      queryKey: ["further", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/further", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** A revision as it was sent. */
  revision: (job: At, revision: string) =>
    queryOptions({
      queryKey: ["revision", revision],
      queryFn: async () =>
        (
          await api.GET("/api/jobs/{id}/revisions/{revision}", {
            params: { path: { id: job.id, revision } },
          })
        ).data!,
      staleTime: Infinity,
    }),
  checks: (job: At) =>
    queryOptions({
      queryKey: ["checks", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/checks", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** What all places come to, in the whole job and under each heading. */
  measured: (job: At) =>
    queryOptions({
      queryKey: ["measured", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/measured", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  schedule: (job: At) =>
    queryOptions({
      queryKey: ["schedule", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/schedule", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  /** The entries that the job has, beside the Book's. */
  pinned: (job: At) =>
    queryOptions({
      queryKey: ["job-book", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/book", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  entry: (job: At, entry: string) =>
    queryOptions({
      queryKey: ["job-entry", job.id, entry, job.version],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/book/{entry}", { params: { path: { id: job.id, entry } } })).data!,
      placeholderData: keepPreviousData,
    }),
  /** Where a work item's entry differs from the Book's. */
  kept: (job: At, work: string) =>
    queryOptions({
      queryKey: ["kept", job.id, job.version, work],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/work/{work}/kept", { params: { path: { id: job.id, work } } })).data!,
    }),
  /** What cells of a work item have of their own. */
  own: (job: At, work: string) =>
    queryOptions({
      queryKey: ["own", job.id, work, job.version],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/cells/{work}/own", { params: { path: { id: job.id, work } } })).data!,
    }),
  cell: (job: At, work: string, place: string) =>
    queryOptions({
      queryKey: ["cell", job.id, job.version, work, place],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/cells/{work}/{place}", { params: { path: { id: job.id, work, place } } })).data!,
    }),
  cellMoney: (job: At) =>
    queryOptions({
      queryKey: ["money", job.id, job.version],
      queryFn: async () => (await api.GET("/api/jobs/{id}/cells/money", { params: of(job) })).data!,
      placeholderData: keepPreviousData,
    }),
  place: (job: At, place: string) =>
    queryOptions({
      queryKey: ["place", job.id, place, job.version],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/places/{place}", { params: { path: { id: job.id, place } } })).data!,
    }),
  /** What a deduction rule would move. */
  deduction: (job: At, rule: string) =>
    queryOptions({
      queryKey: ["deduction", job.id, job.version, rule],
      queryFn: async () =>
        (await api.GET("/api/jobs/{id}/deduction", { params: { ...of(job), query: { rule } } })).data!,
      retry: false,
    }),
  /** What an edit would move. */
  preview: (job: At, edit: Schemas["Command"]) =>
    queryOptions({
      queryKey: ["preview", job.id, job.version, edit],
      queryFn: async () => (await api.POST("/api/jobs/{id}/preview", { params: of(job), body: edit })).data!,
      placeholderData: keepPreviousData,
      retry: false,
    }),
};

/** How a figure came about. */
export const workings = {
  job: async (job: string, figure: string) =>
    (await api.GET("/api/jobs/{id}/workings", { params: { path: { id: job }, query: { figure, levels: 0 } } })).data,
  asText: async (job: string, figure: string) =>
    (await api.GET("/api/jobs/{id}/workings/text", { params: { path: { id: job }, query: { figure } } })).data!.text,
  preview: async (job: string, edit: Schemas["Command"], figure: string) =>
    (
      await api.POST("/api/jobs/{id}/preview/workings", {
        params: { path: { id: job }, query: { figure } },
        body: edit,
      })
    ).data,
  trial: async (entry: string, trial: Schemas["TryEntry"], figure: string) =>
    (await api.POST("/api/book/{id}/try/workings", { params: { path: { id: entry }, query: { figure } }, body: trial }))
      .data,
};

/** Tables and texts as the server reads them, before any of it is taken. */
export const read = {
  places: async (job: string, table: Schemas["MappedTable"]) =>
    (await api.POST("/api/jobs/{id}/places/read-table", { params: { path: { id: job } }, body: table })).data!,
  schedule: async (job: string, table: Schemas["MappedTable"]) =>
    (await api.POST("/api/jobs/{id}/schedule/read-table", { params: { path: { id: job } }, body: table })).data!,
  choices: async (job: string, table: Schemas["MappedTable"]) =>
    (await api.POST("/api/jobs/{id}/choices/read-table", { params: { path: { id: job } }, body: table })).data!,
  tape: async (job: string, text: Schemas["TapeText"], signal?: AbortSignal) =>
    (await api.POST("/api/jobs/{id}/read-tape", { params: { path: { id: job } }, body: text, signal })).data!,
  bookTable: async (table: Schemas["MappedTable"]) => (await api.POST("/api/book/read-table", { body: table })).data!,
  rate: async (text: string, driver: string | null) =>
    (await api.POST("/api/book/read-rate", { body: { text, driver } })).data!.text,
};
