import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["src/shared/api/schema.d.ts", "node_modules"] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  {
    files: ["**/*.ts", "**/*.tsx"],
    languageOptions: { parserOptions: { project: "./tsconfig.json", tsconfigRootDir: import.meta.dirname } },
    plugins: { "react-hooks": hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      // It warns of what the React Compiler would leave out; the compiler is not used here.
      "react-hooks/incompatible-library": "off",
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
      "@typescript-eslint/no-confusing-void-expression": "off",
      "no-restricted-syntax": [
        "error",
        {
          selector: "JSXAttribute[name.name='style'] Property > Literal.value",
          message: "What is known beforehand stands in the CSS module beside the component, or in spacing.css.",
        },
      ],
    },
  },
  {
    files: ["**/*.ts", "**/*.tsx"],
    ignores: ["src/features/*/api.ts", "src/shared/useBook.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              group: ["**/api/client"],
              importNames: ["api"],
              message: "What a feature asks of the server stands in its api.ts.",
            },
          ],
        },
      ],
    },
  },
  { files: ["**/*.js"], ...tseslint.configs.disableTypeChecked },
);
