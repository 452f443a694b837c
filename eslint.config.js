import js from "@eslint/js";
import globals from "globals";

export default [
  { ignores: ["**/vendor/**", ".venv/**", "var/**"] },
  js.configs.recommended,
  {
    languageOptions: { ecmaVersion: 2023, sourceType: "module", globals: globals.browser },
    rules: {
      eqeqeq: "error",
      "no-shadow": "error",
      "no-var": "error",
      "prefer-const": "error",
      "no-implicit-globals": "error",
      "no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
    },
  },
  { files: ["tools/*.mjs"], languageOptions: { globals: globals.node } },
];
