import { counted } from "../controls/counted";
import { useQuery } from "@tanstack/react-query";
import { NavLink } from "react-router";
import { askJob } from "../api/jobQueries";
import { FigureText } from "../figure/FigureText";
import { useJob } from "../job/JobContext";

export const stations = [
  { path: "measure", name: "Measure" },
  { path: "work", name: "Work" },
  { path: "price", name: "Price" },
  { path: "proposal", name: "Proposal" },
  { path: "deliver", name: "Deliver" },
] as const;

const details = {
  total: "total only",
  section: "by section",
  place: "by place",
  line: "by line",
  headline: "by headline",
  schedule: "by their schedule",
};

/** The tape measure across the top: navigation, progress and totals in one. */
export function Tape() {
  const [, { job }] = useJob();
  const { data: sent } = useQuery(askJob.stands(job));
  const { data: delivered } = useQuery(askJob.deliverStands(job));
  const { tally } = job;
  const words = {
    measure: (
      <>
        {counted(tally.places, "place")}
        {tally.floor.value !== "0" && (
          <>
            {" "}
            · <FigureText figure={tally.floor} /> floor
          </>
        )}
      </>
    ),
    work: (
      <>
        {counted(tally.lines, "line")} · <FigureText figure={tally.hours} />
        {tally.year && " a year"}
      </>
    ),
    price: (
      <>
        <FigureText figure={tally.beforeTax} />
        {tally.year && " first year"}
        {tally.margin && (
          <>
            {" · "}
            <FigureText figure={tally.margin} />
            {" margin"}
          </>
        )}
      </>
    ),
    proposal: `${details[job.proposal.detail]} · ${sent?.words ?? "draft"}`,
    deliver: delivered?.words ?? "",
  };
  return (
    <nav className="tape" aria-label="Stations of the job">
      {stations.map((station) => (
        <NavLink key={station.path} to={`/jobs/${job.id}/${station.path}`}>
          <b>{station.name}</b>
          <span>{words[station.path]}</span>
        </NavLink>
      ))}
    </nav>
  );
}
