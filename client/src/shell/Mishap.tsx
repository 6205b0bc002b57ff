import { Button } from "@mui/material";
import { Component, type ReactNode } from "react";
import { useLocation } from "react-router";

/** Stands in for a screen that broke; going elsewhere brings the others back. Edits are on disk when they are answered, so nothing kept is lost. */
export function Mishap({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  return <Boundary at={pathname}>{children}</Boundary>;
}

interface At {
  at: string;
}

class Boundary extends Component<At & { children: ReactNode }, At & { broke: boolean }> {
  override state = { at: this.props.at, broke: false };

  static getDerivedStateFromProps({ at }: At, state: At) {
    return at === state.at ? null : { at, broke: false };
  }

  static getDerivedStateFromError() {
    return { broke: true };
  }

  override render() {
    if (!this.state.broke) return this.props.children;
    return (
      <div className="page empty" role="alert">
        <h2>This screen broke</h2>
        <p>That is our mistake. What was saved is still there; what stood in an open field has to be typed again.</p>
        <Button variant="outlined" onClick={() => location.reload()}>
          Load it again
        </Button>
      </div>
    );
  }
}
