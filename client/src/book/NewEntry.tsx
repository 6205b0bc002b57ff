import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { newId } from "../api/client";
import { Ask } from "../controls/Ask";
import { Input } from "../controls/Input";
import { bookChanged } from "./useEntry";
import { change } from "../api/changes";

/** A new entry needs a name; the rest is filled in on its page. */
export function NewEntry(props: { kind: string; words: string; onClose: () => void; onMade: (id: string) => void }) {
  const queries = useQueryClient();
  const [id] = useState(newId);
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState("");
  async function make() {
    await change.makeEntry({ id, kind: props.kind, name });
    await bookChanged(queries);
    props.onMade(id);
  }
  return (
    <Ask
      title={`New ${props.words}`}
      apply="Add it"
      width="xs"
      onApply={make}
      onRefused={(error) => {
        setWrong(error.message);
        return true;
      }}
      onClose={props.onClose}
    >
      <Input label="Name" focus value={name} wrong={wrong} onType={setName} />
    </Ask>
  );
}
