import { Button } from "@mui/material";
import { useRef } from "react";

interface Props {
  /** Words of the button. */
  words: string;
  /** What the file is. */
  label: string;
  accept: string;
  /** Whether several can be chosen at a time. */
  several?: boolean;
  onFiles: (files: readonly File[]) => void;
}

/** A button that takes files of this machine. The same can be chosen again. */
export function FileAct({ words, label, accept, several, onFiles }: Props) {
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
        multiple={several}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          if (files.length > 0) onFiles(files);
        }}
      />
    </>
  );
}
