import { type Schemas, api, sendFile } from "./client";

type Sent = Pick<Schemas["KeepInBook"], "id" | "base" | "client">;

/** What is changed outside a job's own commands: one place, one name for each. Each gives what the server answers, and throws what it refuses. */
export const change = {
  makeJob: (job: Schemas["NewJob"]) => api.POST("/api/jobs", { body: job }),
  takeInJob: (file: File) => sendFile<Schemas["JobMade"]>("/api/jobs/import", file, "application/json"),
  customer: (id: string, save: Schemas["SaveOfCustomer"]) =>
    api.PUT("/api/customers/{id}", { params: { path: { id } }, body: save }),

  company: (save: Schemas["SaveOfCompany"]) => api.PUT("/api/company", { body: save }),
  usualSizes: (save: Schemas["SaveOfUsualSizes"]) => api.PUT("/api/company/usual-sizes", { body: save }),
  crew: (save: Schemas["SaveOfCrewTerms"]) => api.PUT("/api/company/crew", { body: save }),
  policies: (save: Schemas["SaveOfPricePolicies"]) => api.PUT("/api/company/policies", { body: save }),
  brand: (save: Schemas["SaveOfBrand"]) => api.PUT("/api/company/brand", { body: save }),
  patterns: (save: Schemas["SaveOfProposalPatterns"]) => api.PUT("/api/company/patterns", { body: save }),
  messages: (save: Schemas["SaveOfMessageTexts"]) => api.PUT("/api/company/messages", { body: save }),
  usualPlaces: async (save: Schemas["SaveOfUsualPlaces"]) =>
    (await api.PUT("/api/company/usual-places", { body: save })).data!.lists,
  backupPlan: async (save: Schemas["SaveOfBackupPlan"]) => (await api.PUT("/api/backups/plan", { body: save })).data!,
  makeBackup: async () => (await api.POST("/api/backups")).data!,
  keepFile: (file: File) => sendFile<Schemas["StoredFile"]>("/api/files", file),

  sendRevision: async (job: string, send: Schemas["SendRevision"]) =>
    (await api.POST("/api/jobs/{id}/revisions", { params: { path: { id: job } }, body: send })).data!,
  mailAgain: async (job: string, revision: string, again: Schemas["SendAgain"]) =>
    (
      await api.POST("/api/jobs/{id}/revisions/{revision}/mails", {
        params: { path: { id: job, revision } },
        body: again,
      })
    ).data!,
  makeLink: async (job: string, revision: string, make: Schemas["MakeLink"]) =>
    (
      await api.POST("/api/jobs/{id}/revisions/{revision}/links", {
        params: { path: { id: job, revision } },
        body: make,
      })
    ).data!,
  revokeLink: (job: string, revision: string, link: string, fact: string) =>
    api.POST("/api/jobs/{id}/revisions/{revision}/links/{link}/revoke", {
      params: { path: { id: job, revision, link } },
      body: { fact },
    }),
  answer: (job: string, revision: string, answer: Schemas["AnswerQuestion"]) =>
    api.POST("/api/jobs/{id}/revisions/{revision}/answers", {
      params: { path: { id: job, revision } },
      body: answer,
    }),
  signToo: (job: string, revision: string, sign: Schemas["SignToo"]) =>
    api.POST("/api/jobs/{id}/revisions/{revision}/signatures", {
      params: { path: { id: job, revision } },
      body: sign,
    }),
  moveTask: async (job: string, move: Schemas["MoveTask"]) =>
    (await api.POST("/api/jobs/{id}/deliver/schedule/move", { params: { path: { id: job } }, body: move })).data!,
  removeTask: async (job: string, remove: Schemas["RemoveTask"]) =>
    (await api.POST("/api/jobs/{id}/deliver/schedule/remove", { params: { path: { id: job } }, body: remove })).data!,
  followChanges: async (job: string, follow: Schemas["FollowChanges"]) =>
    (await api.POST("/api/jobs/{id}/deliver/schedule/follow", { params: { path: { id: job } }, body: follow })).data!,
  publishSchedule: async (job: string, publish: Schemas["PublishSchedule"]) =>
    (await api.POST("/api/jobs/{id}/deliver/schedule/publish", { params: { path: { id: job } }, body: publish })).data!,
  eInvoices: (save: Schemas["SaveOfEInvoiceTerms"]) => api.PUT("/api/company/e-invoices", { body: save }),
  crews: (save: Schemas["SaveOfCrewsTyped"]) => api.PUT("/api/company/crews", { body: save }),
  makeCalendar: async (crew: string, id: string) =>
    (await api.POST("/api/company/crews/{crew}/calendar", { params: { path: { crew } }, body: { id } })).data!,
  revokeCalendars: async (crew: string) =>
    (await api.POST("/api/company/crews/{crew}/calendar/revoke", { params: { path: { crew } } })).data!,
  mailServer: (save: Schemas["SaveOfMailServer"]) => api.PUT("/api/company/mail-server", { body: save }),
  mailPassword: (password: string) => api.PUT("/api/company/mail-password", { body: { password } }),
  tryMailServer: async () => (await api.POST("/api/company/mail-server/try")).data!,
  mailNow: (mail: string) => api.POST("/api/outbox/{id}/send", { params: { path: { id: mail } } }),
  mailGone: (mail: string) => api.POST("/api/outbox/{id}/gone", { params: { path: { id: mail } } }),
  cancelSending: async (job: string, cancel: Schemas["CancelSending"]) =>
    (await api.POST("/api/jobs/{id}/revisions/cancel", { params: { path: { id: job } }, body: cancel })).data!,
  recordFact: async (job: string, revision: string, fact: Schemas["RecordFact"]) =>
    (
      await api.POST("/api/jobs/{id}/revisions/{revision}/facts", {
        params: { path: { id: job, revision } },
        body: fact,
      })
    ).data!,

  markDone: async (job: string, mark: Schemas["MarkDone"]) =>
    (await api.POST("/api/jobs/{id}/deliver/done", { params: { path: { id: job } }, body: mark })).data!,
  writeHours: async (job: string, write: Schemas["WriteHours"]) =>
    (await api.POST("/api/jobs/{id}/deliver/hours", { params: { path: { id: job } }, body: write })).data!,
  takeHoursBack: async (job: string, fact: string, id: string) =>
    (
      await api.POST("/api/jobs/{id}/deliver/hours/{fact}/take-back", {
        params: { path: { id: job, fact } },
        body: { id },
      })
    ).data!,
  sendChange: async (job: string, send: Schemas["SendChange"]) =>
    (await api.POST("/api/jobs/{id}/deliver/changes", { params: { path: { id: job } }, body: send })).data!,
  sayOfVisits: async (job: string, say: Schemas["SayOfVisits"]) =>
    (await api.POST("/api/jobs/{id}/deliver/visits", { params: { path: { id: job } }, body: say })).data!,
  issueInvoice: async (job: string, issue: Schemas["IssueInvoice"]) =>
    (await api.POST("/api/jobs/{id}/deliver/invoices", { params: { path: { id: job } }, body: issue })).data!,
  creditInvoice: async (job: string, invoice: string, credit: Schemas["CreditInvoice"]) =>
    (
      await api.POST("/api/jobs/{id}/deliver/invoices/{invoice}/credit", {
        params: { path: { id: job, invoice } },
        body: credit,
      })
    ).data!,
  pay: async (job: string, invoice: string, payment: Schemas["WritePayment"]) =>
    (
      await api.POST("/api/jobs/{id}/deliver/invoices/{invoice}/payments", {
        params: { path: { id: job, invoice } },
        body: payment,
      })
    ).data!,
  takePaymentBack: async (job: string, payment: string, id: string) =>
    (
      await api.POST("/api/jobs/{id}/deliver/invoices/payments/{payment}/take-back", {
        params: { path: { id: job, payment } },
        body: { id },
      })
    ).data!,
  agreeTerms: async (job: string, agree: Schemas["AgreeTerms"]) =>
    (await api.POST("/api/jobs/{id}/deliver/invoices/terms", { params: { path: { id: job } }, body: agree })).data!,
  askRelease: async (job: string, ask: Schemas["AskRelease"]) =>
    (await api.POST("/api/jobs/{id}/deliver/invoices/releases", { params: { path: { id: job } }, body: ask })).data!,
  remind: async (job: string, invoice: string, id: string) =>
    (
      await api.POST("/api/jobs/{id}/deliver/invoices/{invoice}/reminders", {
        params: { path: { id: job, invoice } },
        body: { id },
      })
    ).data!,
  mailInvoice: async (job: string, invoice: string, mail: Schemas["MailInvoice"]) =>
    (
      await api.POST("/api/jobs/{id}/deliver/invoices/{invoice}/mails", {
        params: { path: { id: job, invoice } },
        body: mail,
      })
    ).data!,
  writeSnag: async (job: string, write: Schemas["WriteSnag"]) =>
    (await api.POST("/api/jobs/{id}/deliver/completion/snags", { params: { path: { id: job } }, body: write })).data!,
  mendSnag: async (job: string, snag: string, mend: Schemas["MendSnag"]) =>
    (
      await api.POST("/api/jobs/{id}/deliver/completion/snags/{snag}/mended", {
        params: { path: { id: job, snag } },
        body: mend,
      })
    ).data!,
  recordCompletion: async (job: string, record: Schemas["RecordCompletion"]) =>
    (await api.POST("/api/jobs/{id}/deliver/completion/note", { params: { path: { id: job } }, body: record })).data!,
  takeCompletionBack: async (job: string, id: string) =>
    (
      await api.POST("/api/jobs/{id}/deliver/completion/note/take-back", {
        params: { path: { id: job } },
        body: { id },
      })
    ).data!,
  placeOrder: async (job: string, place: Schemas["PlaceOrder"]) =>
    (await api.POST("/api/jobs/{id}/deliver/buying/orders", { params: { path: { id: job } }, body: place })).data!,
  receiveGoods: async (job: string, order: string, receive: Schemas["ReceiveGoods"]) =>
    (
      await api.POST("/api/jobs/{id}/deliver/buying/orders/{order}/receive", {
        params: { path: { id: job, order } },
        body: receive,
      })
    ).data!,
  closeOrder: async (job: string, order: string, close: Schemas["CloseOrder"]) =>
    (
      await api.POST("/api/jobs/{id}/deliver/buying/orders/{order}/close", {
        params: { path: { id: job, order } },
        body: close,
      })
    ).data!,
  mailOrder: async (job: string, order: string, mail: Schemas["MailOrder"]) =>
    (
      await api.POST("/api/jobs/{id}/deliver/buying/orders/{order}/mails", {
        params: { path: { id: job, order } },
        body: mail,
      })
    ).data!,
  takeOrderFactBack: async (job: string, fact: string, id: string) =>
    (
      await api.POST("/api/jobs/{id}/deliver/buying/order-facts/{fact}/take-back", {
        params: { path: { id: job, fact } },
        body: { id },
      })
    ).data!,
  moveGoods: async (job: string, move: Schemas["MoveGoods"]) =>
    (await api.POST("/api/jobs/{id}/deliver/buying/moves", { params: { path: { id: job } }, body: move })).data!,
  takeMoveBack: async (job: string, fact: string, id: string) =>
    (
      await api.POST("/api/jobs/{id}/deliver/buying/moves/{fact}/take-back", {
        params: { path: { id: job, fact } },
        body: { id },
      })
    ).data!,
  readBankFile: (file: File) => sendFile<Schemas["BankFileView"]>("/api/bank/read", file),
  takeBankEntries: async (entries: Schemas["TakeEntry"][]) =>
    (await api.POST("/api/bank/take", { body: { entries } })).data!,
  useBankCredit: async (entry: string, use: Schemas["UseCredit"]) =>
    (await api.POST("/api/bank/{entry}/use", { params: { path: { entry } }, body: use })).data!,
  moveStock: async (move: Schemas["MoveGoods"]) => (await api.POST("/api/stock/moves", { body: move })).data!,
  takeStockBack: async (fact: string, id: string) =>
    (await api.POST("/api/stock/moves/{fact}/take-back", { params: { path: { fact } }, body: { id } })).data!,
  orderTerms: (save: Schemas["SaveOfOrderTerms"]) => api.PUT("/api/company/orders", { body: save }),
  invoiceTerms: (save: Schemas["SaveOfInvoiceTerms"]) => api.PUT("/api/company/invoices", { body: save }),
  moveNumbers: (move: Schemas["MoveNumbers"]) => api.POST("/api/company/numbers/move", { body: move }),
  keepRate: (job: string, keep: Schemas["KeepRate"]) =>
    api.POST("/api/jobs/{id}/deliver/keep-rate", { params: { path: { id: job } }, body: keep }),
  makeCrewLink: async (job: string, make: Schemas["MakeCrewLink"]) =>
    (await api.POST("/api/jobs/{id}/deliver/links", { params: { path: { id: job } }, body: make })).data!,
  revokeCrewLink: async (job: string, link: string) =>
    (await api.POST("/api/jobs/{id}/deliver/links/{link}/revoke", { params: { path: { id: job, link } } })).data!,

  makeEntry: (entry: Schemas["NewEntry"]) => api.POST("/api/book", { body: entry }),
  entry: async (id: string, save: Schemas["SaveEntry"]) =>
    (await api.PUT("/api/book/{id}", { params: { path: { id } }, body: save })).data!,
  copyEntry: (id: string, copy: string) =>
    api.POST("/api/book/{id}/copy", { params: { path: { id } }, body: { id: copy } }),
  restoreEntry: async (id: string, version: number) =>
    (await api.POST("/api/book/{id}/restore", { params: { path: { id } }, body: { version } })).data!,
  deleteEntry: (id: string) => api.DELETE("/api/book/{id}", { params: { path: { id } } }),
  takePrices: async (ids: string[]) => (await api.POST("/api/book/feed/take", { body: { ids } })).data!,
  takeGoods: async (take: Schemas["TakeGoods"]) => (await api.POST("/api/book/catalogue/take", { body: take })).data!,
  takeBookTable: async (take: Schemas["TakeTable"]) => (await api.POST("/api/book/take-table", { body: take })).data!,
  takeBookFile: (file: File, leaveOut: boolean) =>
    sendFile<Schemas["BookTaken"]>(`/api/book/take-file?leaveOut=${leaveOut}`, file),

  entryInJob: (job: string, entry: string, save: Schemas["SaveInJob"]) =>
    api.PUT("/api/jobs/{id}/book/{entry}", { params: { path: { id: job, entry } }, body: save }),
  keepInBook: (job: string, entry: string, sent: Sent, keep: { was: number; work: string | null }) =>
    api.POST("/api/jobs/{id}/book/{entry}/keep", { params: { path: { id: job, entry } }, body: { ...sent, ...keep } }),
};
