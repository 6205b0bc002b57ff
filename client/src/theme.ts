import { createTheme } from "@mui/material";

const font = '"Archivo Variable", sans-serif';

/** Colours and shapes of interface.md; light and dark follow the system. */
export const theme = createTheme({
  cssVariables: true,
  colorSchemes: {
    light: {
      palette: {
        primary: { main: "#0E5A63" },
        error: { main: "#B93E24" },
        text: { primary: "#1B2426", secondary: "#5C686A" },
        background: { default: "#F2F3F0", paper: "#FFFFFF" },
        divider: "#DADDD8",
      },
    },
    dark: {
      palette: {
        primary: { main: "#7CC4CC" },
        error: { main: "#F2957F" },
        text: { primary: "#E9ECE8", secondary: "#A9B4B4" },
        background: { default: "#12191A", paper: "#1B2426" },
        divider: "#344043",
      },
    },
  },
  shape: { borderRadius: 4 },
  typography: { fontFamily: font, fontSize: 13.5, button: { textTransform: "none", fontWeight: 600 } },
  components: {
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: { root: { minHeight: 40 }, sizeSmall: { minHeight: 32 } },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    // It would be laid out anew for every frame of its way, while figures wait to be painted.
    MuiTabs: { styleOverrides: { indicator: { transition: "none" } } },
    MuiTextField: { defaultProps: { size: "small", fullWidth: true } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          padding: "4px 12px",
          minHeight: 32,
          fontWeight: 500,
          color: "var(--ink)",
          "&.Mui-selected, &.Mui-selected:hover": { background: "var(--chosen)", color: "var(--on-chosen)" },
        },
      },
    },
  },
});
