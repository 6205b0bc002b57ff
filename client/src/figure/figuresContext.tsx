import { createContext, type ReactNode } from "react";
import type { Schemas } from "../api/client";

interface Figures {
  span: (span: Schemas["Span"]) => ReactNode;
  row: (row: Schemas["PriceRow"]) => ReactNode;
}

/** How the figures of a document are shown: as numbers that can be read, where nobody says otherwise. */
export const FiguresContext = createContext<Figures>({
  span: (span) => span.text,
  row: (row) => <span className="figure">{row.shown}</span>,
});
