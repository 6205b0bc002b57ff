import { Suspense } from "react";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { JobsPage } from "./jobs/JobsPage";
import {
  BankPage,
  BookPage,
  CustomersPage,
  DeliverPage,
  EntryInJob,
  JobFrame,
  MeasurePage,
  OfficePage,
  PricePage,
  ProposalPage,
  SchedulePage,
  CrewsPage,
  StockPage,
  WorkPage,
} from "./pages";
import { Mishap } from "./shell/Mishap";
import { Rail } from "./shell/Rail";

export function App() {
  return (
    // At once: a key pressed right after a place was chosen is of that place.
    <BrowserRouter useTransitions={false}>
      <div className="shell">
        <Rail />
        <Mishap>
          <Suspense fallback={<main className="page" aria-busy="true" aria-label="Opening the page" />}>
            <Routes>
              <Route path="/jobs" element={<JobsPage />} />
              <Route path="/customers" element={<CustomersPage />} />
              <Route path="/book" element={<BookPage />} />
              <Route path="/book/:id" element={<BookPage />} />
              <Route path="/office" element={<OfficePage />} />
              <Route path="/office/crews" element={<CrewsPage />} />
              <Route path="/office/stock" element={<StockPage />} />
              <Route path="/office/bank" element={<BankPage />} />
              <Route path="/jobs/:id" element={<JobFrame />}>
                <Route index element={<Navigate to="measure" replace />} />
                <Route path="measure" element={<MeasurePage />} />
                <Route path="measure/schedule" element={<SchedulePage />} />
                <Route path="work" element={<WorkPage />} />
                <Route path="book/:entry" element={<EntryInJob />} />
                <Route path="price" element={<PricePage />} />
                <Route path="proposal" element={<ProposalPage />} />
                <Route path="deliver" element={<DeliverPage />} />
              </Route>
              <Route path="*" element={<Navigate to="/jobs" replace />} />
            </Routes>
          </Suspense>
        </Mishap>
      </div>
    </BrowserRouter>
  );
}
