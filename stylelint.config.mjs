/** Colours stand in the palette, once; a Material component keeps its insides outside the kit and the theme. */
export default {
  extends: ['stylelint-config-standard-scss'],
  ignoreFiles: ['**/dist/**', '**/node_modules/**', '**/.angular/**'],
  rules: {
    'color-no-hex': true,
    'color-named': 'never',
    'declaration-no-important': true,
    'selector-pseudo-element-disallowed-list': ['ng-deep'],
    'selector-disallowed-list': ['/\\.(mat-mdc|mdc|mat)-/'],
    // The formatter sets blank lines.
    'rule-empty-line-before': null,
    'declaration-empty-line-before': null,
    'at-rule-empty-line-before': null,
    'scss/dollar-variable-empty-line-before': null,
    'scss/double-slash-comment-empty-line-before': null,
    'no-descending-specificity': null,
  },
  overrides: [
    { files: ['web/src/styles/_tokens.scss'], rules: { 'color-no-hex': null } },
    {
      files: ['web/src/app/platform/kit/**/*.scss', 'web/src/styles/_theme.scss'],
      rules: {
        'selector-disallowed-list': null,
        'selector-pseudo-element-disallowed-list': null,
        // Names of Material's own elements.
        'selector-class-pattern': null,
      },
    },
    // Motion that somebody switched off stays off, and what is not for paper stays off it, whatever a page says.
    { files: ['web/src/styles/_base.scss'], rules: { 'declaration-no-important': null } },
  ],
};
