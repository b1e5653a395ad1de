import js from "@eslint/js";
import globals from "globals";

export default [
  { files: ["src/hakutsu/web/static/js/**/*.js"], ...js.configs.recommended },
  {
    files: ["src/hakutsu/web/static/js/**/*.js"],
    languageOptions: { ecmaVersion: 2023, sourceType: "module", globals: globals.browser },
    linterOptions: { reportUnusedDisableDirectives: "error" },
    rules: {
      "array-callback-return": "error",
      curly: ["error", "multi-line"],
      eqeqeq: "error",
      "max-lines": ["error", 350],
      "no-implicit-globals": "error",
      "no-return-assign": "off",
      "no-shadow": "error",
      "no-var": "error",
      "object-shorthand": "error",
      "prefer-const": "error",
      "prefer-template": "error",
    },
  },
];
