import { Button } from "@mui/material";
import { useRef } from "react";

interface Props {
  /** Words of the button. */
  words: string;
  /** What the file is. */
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

/** A button that takes a file of this machine. The same can be chosen again. */
export function FileAct({ words, label, accept, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant="outlined" onClick={() => input.current!.click()}>
        {words}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={label}
        accept={accept}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
    </>
  );
}
