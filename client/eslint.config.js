import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

export default ts.config(
  { ignores: ["dist", "src/api/types.gen.ts"] },
  js.configs.recommended,
  ...ts.configs.strict,
  hooks.configs.flat["recommended-latest"],
  {
    rules: {
      "@typescript-eslint/no-non-null-assertion": "off",
      // The browser never computes a price, an hour or a quantity (architecture, decision 3).
      "no-restricted-syntax": [
        "error",
        { selector: "CallExpression[callee.name='parseFloat']", message: "The browser computes no quantity." },
        { selector: "MemberExpression[property.name='toFixed']", message: "The core formats figures." },
      ],
    },
  },
);
