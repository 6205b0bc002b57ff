import { createTheme } from "@mui/material";

const font = '"Archivo Variable", sans-serif';

/** Who wants no movement gets none: what opens stands at once. */
const still = matchMedia("(prefers-reduced-motion: reduce)").matches ? { transitionDuration: 0 } : {};

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
  // Workings are asked for from dialogs, too, and stand above them.
  zIndex: { drawer: 1350 },
  shape: { borderRadius: 4 },
  typography: { fontFamily: font, fontSize: 13.5, button: { textTransform: "none", fontWeight: 600 } },
  components: {
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: { root: { minHeight: 40 }, sizeSmall: { minHeight: 32 } },
    },
    MuiDialog: { defaultProps: still },
    MuiDrawer: { defaultProps: still },
    MuiPopover: { defaultProps: still },
    MuiMenu: { defaultProps: still },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    // It would be laid out anew for every frame of its way, while figures wait to be painted.
    MuiTabs: { styleOverrides: { indicator: { transition: "none" } } },
    MuiTextField: { defaultProps: { size: "small", fullWidth: true } },
    // The choice with search looks like the other fields: controls/field.module.css.
    MuiInputLabel: {
      styleOverrides: {
        root: {
          position: "static",
          transform: "none",
          fontSize: 12.5,
          lineHeight: 1.4,
          marginBottom: 3,
          color: "var(--quiet)",
          "&.Mui-focused": { color: "var(--quiet)" },
        },
      },
    },
    MuiOutlinedInput: {
      styleOverrides: {
        root: {
          minHeight: "var(--control)",
          background: "var(--sheet)",
          fontSize: 13.5,
          "&&": { paddingBlock: 1, paddingLeft: 4 },
          "&:hover .MuiOutlinedInput-notchedOutline": { borderColor: "var(--edge)" },
          "&.Mui-focused": { boxShadow: "0 3px 0 var(--tape)" },
          "&.Mui-focused .MuiOutlinedInput-notchedOutline": { borderColor: "var(--ink)", borderWidth: 1 },
        },
        input: { "&&": { padding: "2px 4px" } },
        notchedOutline: { top: 0, borderColor: "var(--edge)", "& legend": { display: "none" } },
      },
    },
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
