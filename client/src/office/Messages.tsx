import { useQuery, useQueryClient } from "@tanstack/react-query";
import { change } from "../api/changes";
import { ask } from "../api/queries";
import { Field } from "../controls/Field";
import { Words } from "../controls/Words";
import { NamedPanel, UsualOrNot, WhichOne, useNamedSet } from "./NamedSet";
import styles from "./office.module.css";

/** What the firm writes when it sends a proposal, and from which address. */
export function Messages() {
  const queries = useQueryClient();
  const { data } = useQuery(ask.messages);
  const { data: names } = useQuery(ask.figureNames);
  const keep = (part: Partial<NonNullable<typeof data>>) =>
    change.messages({ was: data!, now: { ...data!, ...part } }).finally(() => queries.invalidateQueries(ask.messages));
  const set = useNamedSet(data, keep);
  const { one: message, saveOne } = set;
  if (!data || !message || !names) return null;
  return (
    <NamedPanel
      name="Messages"
      note="what a mail with a proposal says; it can be written otherwise each time"
      copy="Copy as a new message"
      set={set}
      head={
        <>
          <div className={styles.pair}>
            <Field
              label="Mail comes from"
              hint="the firm's e-mail address"
              value={data.from}
              onKeep={async (from) => {
                await keep({ from: from.trim() });
              }}
            />
            <Field
              label="Text message to a telephone"
              sentence
              rows={3}
              hint="with figures by name, and {link}"
              value={data.text}
              onKeep={async (text) => {
                await keep({ text: text.trim() });
              }}
            />
            <WhichOne label="Message" set={set} usual="offered first" />
            <Field
              key={`n${message.id}`}
              label="Name"
              value={message.name}
              onKeep={(n) => saveOne({ name: n.trim() })}
            />
            <Field
              key={`s${message.id}`}
              label="Subject"
              hint="figures by name in braces, like {total}"
              value={message.subject}
              onKeep={(subject) => saveOne({ subject: subject.trim() })}
            />
          </div>
          <Words
            key={`w${message.id}`}
            label="Words of the message"
            plain
            value={message.words}
            names={names}
            onKeep={(words) => saveOne({ words })}
          />
          <UsualOrNot set={set} make="Offer this one first" />
        </>
      }
    />
  );
}
