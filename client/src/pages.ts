import { type ComponentType, lazy } from "react";

/** A page that is loaded when it is first opened. */
function page<Name extends string>(name: Name, load: () => Promise<Record<Name, ComponentType>>) {
  return lazy(() => load().then((file) => ({ default: file[name] })));
}

const stations = {
  measure: () => import("./measure/MeasurePage"),
  work: () => import("./work/WorkPage"),
  price: () => import("./price/PricePage"),
  proposal: () => import("./proposal/ProposalPage"),
  deliver: () => import("./deliver/DeliverPage"),
};

export const JobFrame = page("JobFrame", () => import("./shell/JobFrame"));
export const MeasurePage = page("MeasurePage", stations.measure);
export const SchedulePage = page("SchedulePage", () => import("./measure/SchedulePage"));
export const WorkPage = page("WorkPage", stations.work);
export const EntryInJob = page("EntryInJob", () => import("./work/EntryInJob"));
export const PricePage = page("PricePage", stations.price);
export const ProposalPage = page("ProposalPage", stations.proposal);
export const DeliverPage = page("DeliverPage", stations.deliver);
export const CustomersPage = page("CustomersPage", () => import("./customers/CustomersPage"));
export const BookPage = page("BookPage", () => import("./book/BookPage"));
export const CrewsPage = page("CrewsPage", () => import("./office/CrewsPage"));
export const StockPage = page("StockPage", () => import("./office/StockPage"));
export const BankPage = page("BankPage", () => import("./office/BankPage"));
export const OfficePage = page("OfficePage", () => import("./office/OfficePage"));

/** Loads the stations of a job while nothing else is to do, so that going from one to the next is at once. */
export function loadStations() {
  setTimeout(() => Object.values(stations).forEach((load) => void load().catch(() => undefined)), 300);
}
