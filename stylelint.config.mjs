/** Styles: the shared sheet holds tokens and what every page has; parts have modules beside them. */
export default {
  extends: ['stylelint-config-recommended'],
  ignoreFiles: ['dist/**', 'node_modules/**'],
  rules: {
    // Tailwind's own.
    'at-rule-no-unknown': [
      true,
      { ignoreAtRules: ['theme', 'utility', 'variant', 'custom-variant', 'source'] },
    ],
    'import-notation': 'string',
    'selector-pseudo-class-no-unknown': [true, { ignorePseudoClasses: ['global'] }],
    // A rule for a narrow screen stands with what it changes, not by weight.
    'no-descending-specificity': null,
  },
};
