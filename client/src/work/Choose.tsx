import { ToggleButton, ToggleButtonGroup } from "@mui/material";
import { memo } from "react";

interface Props<T extends string> {
  label: string;
  value: T;
  of: Record<T, string>;
  onChoose: (value: T) => void;
}

function OneOf<T extends string>(props: Props<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      value={props.value}
      onChange={(_, value: T | null) => value && props.onChoose(value)}
      aria-label={props.label}
    >
      {Object.entries<string>(props.of).map(([value, words]) => (
        <ToggleButton key={value} value={value}>
          {words}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}

/** One of a few, side by side. */
export const Choose = memo(OneOf) as typeof OneOf;
