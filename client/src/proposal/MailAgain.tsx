import type { Schemas } from "../api/client";
import { change } from "../api/changes";
import { Ask } from "../controls/Ask";
import { useJob } from "../job/JobContext";
import { MailFields } from "./MailFields";
import { useMail } from "./useMail";
import { useRevisionsTold } from "./useRevisionsTold";

/** Sends a revision that went out before once more, by mail; `fact` is the id that it is recorded under. */
export function MailAgain(props: { revision: Schemas["RevisionView"]; fact: string; onClose: () => void }) {
  const [, { job }] = useJob();
  const told = useRevisionsTold();
  const { revision, fact } = props;
  const mail = useMail(revision.id);
  return (
    <Ask
      title={`Mail revision ${revision.letters} again`}
      apply="Send the mail"
      ready={mail.ready}
      onApply={() => change.mailAgain(job.id, revision.id, { fact, message: mail.message }).then(told)}
      onRefused={mail.refuse}
      onClose={props.onClose}
    >
      <MailFields mail={mail} focus attached={`the PDF of revision ${revision.letters}, as it was`} />
    </Ask>
  );
}
