import { queryOptions } from "@tanstack/react-query";
import { api } from "./client";

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
  backups: queryOptions({
    queryKey: ["backups"],
    queryFn: async () => (await api.GET("/api/backups")).data!,
  }),
  zones: queryOptions({
    queryKey: ["zones"],
    queryFn: async () => (await api.GET("/api/company/zones")).data!,
    staleTime: Infinity,
  }),
  usualSizes: queryOptions({
    queryKey: ["usual-sizes"],
    queryFn: async () => (await api.GET("/api/company/usual-sizes")).data!.sizes,
  }),
  usualPlaces: queryOptions({
    queryKey: ["usual-places"],
    queryFn: async () => (await api.GET("/api/company/usual-places")).data!.lists,
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
