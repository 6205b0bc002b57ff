import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

/** The browser never computes a price, an hour or a quantity (architecture, decision 3). */
const computed = [
  { selector: "CallExpression[callee.name='parseFloat']", message: "The browser computes no quantity." },
  { selector: "MemberExpression[property.name='toFixed']", message: "The core formats figures." },
];

/** Whatever is typed in or chosen from is a control of ours; only grids and the tape line have cells and a line of their own. */
const bare = {
  selector: "JSXOpeningElement[name.name=/^(input|select|textarea)$/]",
  message: "Use a control of src/controls.",
};

const byFigure = "Show a core-made number by a component of src/figure; it carries the figure's path.";

export default ts.config(
  { ignores: ["dist", "src/api/types.gen.ts"] },
  js.configs.recommended,
  ...ts.configs.strict,
  hooks.configs.flat["recommended-latest"],
  {
    rules: {
      "@typescript-eslint/no-non-null-assertion": "off",
      "no-restricted-syntax": ["error", ...computed],
      // The compiler is not used, so what it could not memoize does not matter.
      "react-hooks/incompatible-library": "off",
    },
  },
  {
    // Every number that the core made is shown by the components of src/figure, which carry its path to its workings.
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/figure/**"],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...computed,
        { selector: "MemberExpression[property.name='shown'][object.name!='shown']", message: byFigure },
        { selector: "ObjectPattern > Property[key.name='shown']", message: byFigure },
        bare,
      ],
    },
  },
  {
    files: ["src/controls/*.tsx", "src/measure/TapeLine.tsx"],
    rules: { "no-restricted-syntax": ["error", ...computed] },
  },
  {
    // What is asked of the server, and what is changed there, stands in one place under one name.
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/api/**", "src/job/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ group: ["**/api/client"], importNames: ["api"], message: "Ask by src/api." }] },
      ],
    },
  },
  { files: ["*.mjs"], languageOptions: { globals: { URL: "readonly" } } },
);
