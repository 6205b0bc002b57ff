import "@fontsource-variable/archivo/wdth.css";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { CustomerPage } from "./CustomerPage";

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <CustomerPage />
  </StrictMode>,
);
