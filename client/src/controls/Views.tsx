import { ToggleButton, ToggleButtonGroup } from "@mui/material";

/** The views of a station, one of which is shown. */
export function Views<T extends string>(props: { views: Record<T, string>; value: T; onChoose: (to: T) => void }) {
  return (
    <ToggleButtonGroup
      exclusive
      value={props.value}
      aria-label="View"
      onChange={(_, to: T | null) => to && props.onChoose(to)}
    >
      {Object.entries<string>(props.views).map(([key, words]) => (
        <ToggleButton key={key} value={key}>
          {words}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
