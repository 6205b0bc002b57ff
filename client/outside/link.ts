import type { Schemas } from "../src/api/client";
import { answered, Refused, sent } from "./answered";
import { type Files, ownFiles } from "../src/proposal/filesContext";

/** What moves on the page. */
export type Now = Schemas["PageNow"];

/** The page as it is by now. */
export type Page = Omit<Schemas["CustomerPage"], "now"> & Now;

/** What is said in words: a question, or why somebody declines. Its id makes it that it is said once, however often it is sent. */
export interface Says {
  id: string;
  words: string;
}

/** One thing that is chosen: an option of a choice, or an alternate. `version` is the one that was seen. */
export interface ChooseOne {
  id: string;
  version: number;
  choice: string | null;
  of: string;
  taken: boolean;
  /** Whether an option is taken together with what it is only to be had with. */
  together: boolean;
}

/** The way to what a customer's link shows. */
export interface Link {
  /** Whether it is the firm's own: looking is not recorded, nothing can be asked. */
  byFirm: boolean;
  /** Whether the customer signs here, at the firm's own tablet. */
  atTablet: boolean;
  load: () => Promise<Page>;
  seen: () => Promise<unknown>;
  ask: (says: Says) => Promise<Now>;
  decline: (says: Says) => Promise<Now>;
  /** Options of a choice whose names have some words in them. */
  options: (choice: string, find: string) => Promise<readonly Schemas["OptionOnPage"][]>;
  choose: (choose: ChooseOne) => Promise<Now>;
  accept: (accept: Schemas["AcceptRevision"]) => Promise<Now>;
  pdf: string;
  /** The customer's schedule of quantities, priced. */
  schedule: string;
  /** The PDF with the names under it. */
  signed: string;
  mark: string;
  /** Where the firm's own tablet goes on from. */
  back: string;
  /** The picture of an option's goods. */
  picture: (choice: string, option: string) => string;
  /** Files of the document. */
  files: Files;
}

async function page(at: string): Promise<Page> {
  const { now, ...rest } = (await (await answered(fetch(`${at}/page`))).json()) as Schemas["CustomerPage"];
  return { ...rest, ...now };
}

const options = async (at: string, choice: string, find: string) =>
  (await (
    await answered(fetch(`${at}/options?choice=${choice}&find=${encodeURIComponent(find)}`))
  ).json()) as readonly Schemas["OptionOnPage"][];

/** The link that an address holds: `/p/…` for the customer; with a job and a revision for the firm, which looks at what the customer sees. */
export function linkOf(location: Location): Link {
  const token = /^\/p\/([^/]+)/.exec(location.pathname)?.[1];
  if (token === undefined) return ofFirm(new URLSearchParams(location.search));
  const at = `/p/${token}`;
  const post = (what: string, body: unknown) => sent(`${at}/${what}`, body);
  const said = async (what: string, body: unknown) => (await (await post(what, body)).json()) as Now;
  return {
    byFirm: false,
    atTablet: false,
    load: () => page(at),
    seen: () => post("seen", {}),
    ask: (says) => said("questions", says),
    decline: (says) => said("decline", says),
    options: (choice, find) => options(at, choice, find),
    choose: (choose) => said("choose", choose),
    accept: (accept) => said("accept", accept),
    pdf: `${at}/pdf`,
    schedule: `${at}/schedule.xlsx`,
    signed: `${at}/signed`,
    mark: `${at}/mark`,
    back: "",
    picture: (choice, option) => `${at}/picture?choice=${choice}&option=${option}`,
    files: { picture: (file) => `${at}/shown/${file}`, attached: (file) => `${at}/attached/${file}` },
  };
}

function ofFirm(query: URLSearchParams): Link {
  const at = `/api/jobs/${query.get("job")}/revisions/${query.get("revision")}`;
  const not = () => Promise.reject(new Refused("That is for the customer to say.", 0));
  return {
    byFirm: true,
    atTablet: query.has("tablet"),
    load: () => page(at),
    seen: () => Promise.resolve(),
    ask: not,
    decline: not,
    options: (choice, find) => options(at, choice, find),
    choose: async (choose) => (await (await sent(`${at}/choose`, choose)).json()) as Now,
    accept: async (accept) => (await (await sent(`${at}/accept`, accept)).json()) as Now,
    pdf: `${at}/pdf`,
    schedule: `${at}/schedule.xlsx`,
    signed: `${at}/signed`,
    mark: `${at}/mark`,
    back: `/jobs/${query.get("job")}/proposal`,
    picture: (choice, option) => `${at}/picture?choice=${choice}&option=${option}`,
    files: ownFiles,
  };
}
