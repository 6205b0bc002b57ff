import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Refused, Schemas } from "../api/client";
import { askJob } from "../api/jobQueries";
import { useJob } from "../job/JobContext";

type Recipient = Schemas["Recipient"];

/** A mail or a text message that is being written: what the firm says with its figures filled in, until something else is typed. `revision` is one that was sent, null the job as it stands; `day` is the one on which it goes, empty for today. While it is not `wanted` nothing is asked for it. */
export function useMail(revision: string | null, way: Schemas["MessageWay"] = "mail", day = "", wanted = true) {
  const [, { job }] = useJob();
  const [text, setText] = useState<string | null>(null);
  const { data: draft, error } = useQuery({
    ...askJob.message(job, text, revision, day, way),
    placeholderData: keepPreviousData,
    retry: false,
    enabled: wanted,
  });
  const [to, setTo] = useState<readonly Recipient[] | null>(null);
  const [subject, setSubject] = useState<string | null>(null);
  const [words, setWords] = useState<string | null>(null);
  const [refused, setRefused] = useState<Refused | null>(null);
  const people = to ?? [{ address: draft?.to ?? "", copy: false }];
  const typed = subject ?? draft?.subject ?? "";
  const message = {
    to: people.map((r) => ({ ...r, address: r.address.trim() })),
    subject: way === "text" ? "" : typed.trim(),
    words: words ?? draft?.words ?? "",
    way,
  };
  return {
    draft,
    /** Whether it is still asked for. */
    waits: draft === undefined && error === null,
    /** Why the firm's messages cannot be filled in. */
    trouble: error?.message ?? "",
    people,
    setPeople: setTo,
    subject: typed,
    setSubject,
    words: message.words,
    /** Whether somebody has written on it: it says then what they wrote, whichever day it goes. */
    written: subject !== null || words !== null,
    setWords,
    /** Takes one of the firm's messages in place of what stands there. */
    choose: (id: string) => {
      setText(id);
      setSubject(null);
      setWords(null);
    },
    message,
    refused,
    /** Keeps what was refused; true where one of its fields says so itself. */
    refuse: (error: Error) => {
      setRefused(error as Refused);
      return ["to", "subject", "words"].includes((error as Refused).field);
    },
    way,
    ready:
      message.to.some((r) => r.address !== "" && !r.copy) &&
      (way === "text" || message.subject !== "") &&
      message.words.trim() !== "",
  };
}

export type Mail = ReturnType<typeof useMail>;
