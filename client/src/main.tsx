import "@fontsource-variable/archivo/wdth.css";
import "./app.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { CssBaseline, ThemeProvider } from "@mui/material";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import { sendLeft } from "./job/heldJobs";
import { theme } from "./theme";

const queries = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 0 } } });

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <App />
      </ThemeProvider>
    </QueryClientProvider>
  </StrictMode>,
);

// What was typed and not answered before the page was loaded.
void sendLeft();
