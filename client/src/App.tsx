import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { BookPage } from "./book/BookPage";
import { CustomersPage } from "./customers/CustomersPage";
import { JobsPage } from "./jobs/JobsPage";
import { MeasurePage } from "./measure/MeasurePage";
import { SchedulePage } from "./measure/SchedulePage";
import { OfficePage } from "./office/OfficePage";
import { PricePage } from "./price/PricePage";
import { ProposalPage } from "./proposal/ProposalPage";
import { JobFrame } from "./shell/JobFrame";
import { Mishap } from "./shell/Mishap";
import { Rail } from "./shell/Rail";
import { EntryInJob } from "./work/EntryInJob";
import { WorkPage } from "./work/WorkPage";

export function App() {
  return (
    // At once: a key pressed right after a place was chosen is of that place.
    <BrowserRouter useTransitions={false}>
      <div className="shell">
        <Rail />
        <Mishap>
          <Routes>
            <Route path="/jobs" element={<JobsPage />} />
            <Route path="/customers" element={<CustomersPage />} />
            <Route path="/book" element={<BookPage />} />
            <Route path="/book/:id" element={<BookPage />} />
            <Route path="/office" element={<OfficePage />} />
            <Route path="/jobs/:id" element={<JobFrame />}>
              <Route index element={<Navigate to="measure" replace />} />
              <Route path="measure" element={<MeasurePage />} />
              <Route path="measure/schedule" element={<SchedulePage />} />
              <Route path="work" element={<WorkPage />} />
              <Route path="book/:entry" element={<EntryInJob />} />
              <Route path="price" element={<PricePage />} />
              <Route path="proposal" element={<ProposalPage />} />
            </Route>
            <Route path="*" element={<Navigate to="/jobs" replace />} />
          </Routes>
        </Mishap>
      </div>
    </BrowserRouter>
  );
}
