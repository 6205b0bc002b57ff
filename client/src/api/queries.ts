import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { type Schemas, api } from "./client";

/** How long lists from the Book are taken as they were asked for, in ms; an edit of the Book asks anew at once. */
const bookHolds = 30_000;

/** What more than one screen asks for: one key, one shape. What is of the Book is asked anew when it changes; see bookChanged. */
export const ask = {
  jobs: queryOptions({
    queryKey: ["jobs"],
    queryFn: async () => (await api.GET("/api/jobs")).data!,
  }),
  customers: queryOptions({
    queryKey: ["customers"],
    queryFn: async () => (await api.GET("/api/customers")).data!,
  }),
  company: queryOptions({
    queryKey: ["company"],
    queryFn: async () => (await api.GET("/api/company")).data!,
  }),
  /** Rules by which openings are taken off. */
  rules: queryOptions({
    queryKey: ["rules"],
    queryFn: async () => (await api.GET("/api/company/rules")).data!,
  }),
  backups: queryOptions({
    queryKey: ["backups"],
    queryFn: async () => (await api.GET("/api/backups")).data!,
  }),
  zones: queryOptions({
    queryKey: ["zones"],
    queryFn: async () => (await api.GET("/api/company/zones")).data!,
    staleTime: Infinity,
  }),
  /** Measures as the firm calls them. */
  measures: queryOptions({
    queryKey: ["measures"],
    queryFn: async () => (await api.GET("/api/company/measures")).data!,
  }),
  /** What the firm's e-invoices say of it. */
  eInvoices: queryOptions({
    queryKey: ["eInvoices"],
    queryFn: async () => (await api.GET("/api/company/e-invoices")).data!,
  }),
  /** Crews, and when the firm works. */
  crews: queryOptions({
    queryKey: ["crews"],
    queryFn: async () => (await api.GET("/api/company/crews")).data!,
  }),
  /** Calendars that crews can ask for. */
  calendars: queryOptions({
    queryKey: ["crews", "calendars"],
    queryFn: async () => (await api.GET("/api/company/crews/calendars")).data!,
  }),
  /** What other crews or days off would move. */
  crewsMoves: (crews: Schemas["CrewsTyped"]) =>
    queryOptions({
      queryKey: ["crews", "moves", crews],
      queryFn: async () => (await api.POST("/api/company/crews/moves", { body: crews })).data!,
      retry: false,
    }),
  /** The crew of new jobs. */
  policies: queryOptions({
    queryKey: ["policies"],
    queryFn: async () => (await api.GET("/api/company/policies")).data!,
  }),
  /** Texts for proposals. */
  texts: queryOptions({
    queryKey: ["book-texts"],
    queryFn: async () => (await api.GET("/api/book/texts")).data!,
  }),
  brand: queryOptions({
    queryKey: ["brand"],
    queryFn: async () => (await api.GET("/api/company/brand")).data!,
  }),
  patterns: queryOptions({
    queryKey: ["patterns"],
    queryFn: async () => (await api.GET("/api/company/patterns")).data!,
  }),
  /** How the firm bills. */
  invoiceTerms: queryOptions({
    queryKey: ["invoiceTerms"],
    queryFn: async () => (await api.GET("/api/company/invoices")).data!,
  }),
  /** How the firm orders, and from whom. */
  orderTerms: queryOptions({
    queryKey: ["orderTerms"],
    queryFn: async () => (await api.GET("/api/company/orders")).data!,
  }),
  /** How its numbers of invoices stand, or of purchase orders. */
  numbers: (orders: boolean) =>
    queryOptions({
      queryKey: ["numbers", orders],
      queryFn: async () => (await api.GET("/api/company/numbers", { params: { query: { orders } } })).data!,
    }),
  /** Money that came by bank, and what is owed. */
  bank: queryOptions({
    queryKey: ["bank"],
    queryFn: async () => (await api.GET("/api/bank")).data!,
  }),
  /** What is in stock. */
  stock: queryOptions({
    queryKey: ["stock", "all"],
    queryFn: async () => (await api.GET("/api/stock")).data!,
  }),
  /** Everything that happened to some goods. */
  stockMoves: (goods: Schemas["GoodsKey"]) =>
    queryOptions({
      queryKey: ["stock", "moves", goods],
      queryFn: async () => (await api.GET("/api/stock/moves", { params: { query: goods } })).data!,
    }),
  /** Goods of the Book that can be bought. */
  goods: queryOptions({
    queryKey: ["stock", "goods"],
    queryFn: async () => (await api.GET("/api/stock/goods")).data!,
    staleTime: bookHolds,
  }),
  /** What the firm writes when it sends a proposal. */
  messages: queryOptions({
    queryKey: ["messages"],
    queryFn: async () => (await api.GET("/api/company/messages")).data!,
  }),
  /** Mail that would have gone out. */
  mailServer: queryOptions({
    queryKey: ["mailServer"],
    queryFn: async () => (await api.GET("/api/company/mail-server")).data!,
  }),
  /** Whether the mail server has a password; which one, nobody is told. */
  mailPassword: queryOptions({
    queryKey: ["mailPassword"],
    queryFn: async () => (await api.GET("/api/company/mail-password")).data!.isThere,
  }),
  outbox: queryOptions({
    queryKey: ["outbox"],
    queryFn: async () => (await api.GET("/api/outbox")).data!,
  }),
  /** Languages of dates and numbers on paper. */
  languages: queryOptions({
    queryKey: ["languages"],
    queryFn: async () => (await api.GET("/api/company/languages")).data!,
    staleTime: Infinity,
  }),
  /** Figures that texts may say by their names. */
  figureNames: queryOptions({
    queryKey: ["figure-names"],
    queryFn: async () => (await api.GET("/api/company/figures")).data!,
    staleTime: Infinity,
  }),
  crew: queryOptions({
    queryKey: ["crew"],
    queryFn: async () => (await api.GET("/api/company/crew")).data!,
  }),
  usualSizes: queryOptions({
    queryKey: ["usual-sizes"],
    queryFn: async () => (await api.GET("/api/company/usual-sizes")).data!.sizes,
  }),
  usualPlaces: queryOptions({
    queryKey: ["usual-places"],
    queryFn: async () => (await api.GET("/api/company/usual-places")).data!.lists,
  }),
  bookList: (query: { words: string; kind: string; trade: string; archived: boolean }) =>
    queryOptions({
      queryKey: ["book-list", query.words, query.kind, query.trade, query.archived],
      queryFn: async () => (await api.GET("/api/book", { params: { query } })).data!,
      placeholderData: keepPreviousData,
    }),
  entry: (id: string) =>
    queryOptions({
      queryKey: ["entry", id],
      queryFn: async () => (await api.GET("/api/book/{id}", { params: { path: { id } } })).data!,
      retry: false,
    }),
  /** Versions of an entry, newest first; asked anew when another stands. */
  versions: (id: string, current?: number) =>
    queryOptions({
      queryKey: ["versions", id, current],
      queryFn: async () => (await api.GET("/api/book/{id}/versions", { params: { path: { id } } })).data!,
    }),
  /** An entry tried with quantities. */
  trial: (id: string, version: number, trial: Schemas["TryEntry"]) =>
    queryOptions({
      queryKey: ["try", id, version, trial],
      queryFn: async () => (await api.POST("/api/book/{id}/try", { params: { path: { id } }, body: trial })).data!,
      placeholderData: keepPreviousData,
      retry: false,
    }),
  /** What the supplier's feed has newer. */
  feed: queryOptions({
    queryKey: ["feed"],
    queryFn: async () => (await api.GET("/api/book/feed")).data!,
  }),
  /** The supplier's own catalogue, searched. */
  catalogue: (words: string, category: string) =>
    queryOptions({
      queryKey: ["catalogue", words, category],
      queryFn: async () => (await api.GET("/api/book/catalogue", { params: { query: { words, category } } })).data!,
      placeholderData: keepPreviousData,
    }),
  /** What its prices would move in jobs. */
  feedInJobs: (ids: string[]) =>
    queryOptions({
      queryKey: ["feed", "jobs", ids],
      queryFn: async () => (await api.POST("/api/book/feed/jobs", { body: { ids } })).data!,
      placeholderData: keepPreviousData,
    }),
  /** Entries that can be work of a job. */
  bookWork: queryOptions({
    queryKey: ["book", "work"],
    queryFn: async () => (await api.GET("/api/book/work")).data!,
  }),
  /** Entries that others name. */
  bookChoices: queryOptions({
    queryKey: ["book", "choices"],
    queryFn: async () => (await api.GET("/api/book/choices")).data!,
    staleTime: bookHolds,
  }),
  /** Materials with a coverage. */
  bookProducts: queryOptions({
    queryKey: ["book", "products"],
    queryFn: async () => (await api.GET("/api/book/products")).data!,
    staleTime: bookHolds,
  }),
};
