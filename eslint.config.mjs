import js from "@eslint/js";
import globals from "globals";

export default [
  js.configs.recommended,
  {
    files: ["src/ritornel/web/static/ritornel/**/*.js"],
    languageOptions: { ecmaVersion: "latest", sourceType: "module", globals: globals.browser },
    linterOptions: { reportUnusedDisableDirectives: "error" },
    rules: {
      "no-unused-vars": ["error", { caughtErrors: "none" }],
      eqeqeq: ["error", "always", { null: "ignore" }],
      "no-shadow": "error",
      "no-var": "error",
      "prefer-const": "error",
      "no-implicit-coercion": ["error", { allow: ["!!"] }],
    },
  },
  {
    // It runs on the sound card's own thread.
    files: ["src/ritornel/web/static/ritornel/record/capture.js"],
    languageOptions: { globals: globals.audioWorklet },
  },
];
