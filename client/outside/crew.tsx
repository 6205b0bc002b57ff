import "@fontsource-variable/archivo/wdth.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { CrewPage } from "./CrewPage";

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <CrewPage />
  </StrictMode>,
);
