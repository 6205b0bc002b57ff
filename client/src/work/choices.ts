import { useQuery } from "@tanstack/react-query";
import { type Schemas, api } from "../api/client";

/** Entries of the Book of some kind, by name. */
export function useChoices(kind: string): readonly Schemas["NamedEntry"][] {
  const { data } = useQuery({
    queryKey: ["book-choices"],
    queryFn: async () => (await api.GET("/api/book/choices")).data!,
  });
  return data?.filter((c) => c.kind === kind) ?? [];
}

export const supplies: readonly (readonly [Schemas["Supply"], string])[] = [
  ["we", "we do"],
  ["customerMaterial", "customer supplies the material"],
  ["customer", "customer does it"],
];
