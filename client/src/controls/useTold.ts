import { useState } from "react";

/** What was wrong with the last thing that was done, and what does one: its refusal is said until something goes well. */
export function useTold(): [wrong: string, told: (done: Promise<unknown>) => void] {
  const [wrong, setWrong] = useState("");
  return [wrong, (done) => void done.then(() => setWrong("")).catch((e: Error) => setWrong(e.message))];
}
