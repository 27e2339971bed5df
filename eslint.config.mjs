import js from '@eslint/js';
import angular from 'angular-eslint';
import jsdoc from 'eslint-plugin-jsdoc';
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';
import { SUBJECTS, laterThan } from './scripts/house/subjects.mjs';

/** Arrows point one way: web and server to core, the bench to core, core to zod. A subject is entered by its index. */
const forbid = (...groups) => ({ 'no-restricted-imports': ['error', { patterns: groups }] });
const others = (subject) => SUBJECTS.filter((s) => s !== subject).join('|');
/** Another subject of the core is entered by its index, its words by `text`, its wire schemas by `contract`. */
const insidesOf = (subject) => ({
  regex: `^(\\.\\./)+(${others(subject)})/(?!(text|contract)$).+`,
  message: 'Import a subject by its index, not its insides.',
});
/** A subject imports those before it in the order of subjects, never those after it. */
const laterSubjects = (subject) => ({
  regex: `^(\\.\\./)+(${laterThan(subject)})(/|$)`,
  message: `${subject} stands before that subject; see the order in scripts/house/subjects.mjs.`,
});
/** Words for people are for pages and views of the server: what is computed never depends on them. */
const WITH_WORDS = (subject) => [
  `core/src/${subject}/text/**/*.ts`,
  // A check is one object with the words of its findings.
  `core/src/${subject}/checks/**/*.ts`,
  `core/src/${subject}/kind.ts`,
  `core/src/${subject}/evidence/log-findings.ts`,
];
const WORDS = { regex: '/text(/|$)', message: 'Only words import words.' };
const DOM_AND_NODE = {
  group: [
    'node:*',
    'express',
    'sequelize',
    'pg',
    '@angular/*',
    'rxjs',
    'd3-*',
    '!d3-random',
    'fs',
    'path',
  ],
  message: 'The core knows neither browser nor server.',
};
const SERVER = {
  group: ['@ruddy/server*', '**/server/**'],
  message: 'Only the server imports the server.',
};
const WEB = {
  group: ['@ruddy/web*', '**/web/**', '@angular/*'],
  message: 'Only the pages import the pages.',
};
const BENCH = {
  group: ['@ruddy/simbench*', '**/simbench/**', '**/probe/**'],
  message: 'Pages and core know no bench.',
};
const CORE_INSIDES = {
  regex: 'core/src/|^@ruddy/core/[^/]+/(?!(text|contract)$)',
  message: 'Import @ruddy/core/<subject>.',
};

const CORE_ARROWS = SUBJECTS.flatMap((subject) => {
  const arrows = [
    insidesOf(subject),
    ...(laterThan(subject) ? [laterSubjects(subject)] : []),
    DOM_AND_NODE,
    SERVER,
    WEB,
    BENCH,
  ];
  return [
    {
      files: [`core/src/${subject}/**/*.ts`],
      ignores: WITH_WORDS(subject),
      rules: forbid(...arrows, WORDS),
    },
    { files: WITH_WORDS(subject), rules: forbid(...arrows) },
  ];
});
const SERVER_ARROWS = ['platform', ...SUBJECTS.slice(1, -1)].map((subject) => ({
  files: [`server/src/${subject}/**/*.ts`],
  ignores: ['**/*handlers.ts'],
  rules: forbid(WEB, CORE_INSIDES, laterSubjects(subject)),
}));
const WEB_ALWAYS = [
  SERVER,
  CORE_INSIDES,
  BENCH,
  { group: ['node:*'], message: 'The pages run in a browser.' },
];
/** What the kit wraps is used through the kit. */
const KIT_WRAPS = {
  regex:
    '^(@angular/material/(input|select|autocomplete|datepicker|table|sort|paginator|snack-bar)|papaparse|d3-zoom|d3-brush|d3-axis)$',
  message: 'Use the kit: platform/kit.',
};
/** Fields of their own kind: suggestions in groups with keys of their own, and a box for pastes of any length. */
const OWN_FIELDS = [
  'web/src/app/platform/shell/search-box.ts',
  'web/src/app/plan/part-picker.ts',
  'web/src/app/chain/report-box.ts',
];
const WEB_ARROWS = ['platform', ...SUBJECTS.slice(1, -1)].map((subject) => ({
  files: [`web/src/app/${subject}/**/*.ts`],
  ignores: ['**/*-page.ts', '**/*.spec.ts'],
  rules: forbid(...WEB_ALWAYS, KIT_WRAPS, laterSubjects(subject)),
}));
const WEB_KIT = ['platform', 'plan', 'chain'].map((subject) => ({
  files: [
    ...(subject === 'platform' ? ['web/src/app/platform/kit/**/*.ts'] : []),
    ...OWN_FIELDS.filter((f) => f.startsWith(`web/src/app/${subject}/`)),
  ],
  ignores: ['**/*.spec.ts'],
  rules: forbid(...WEB_ALWAYS, laterSubjects(subject)),
}));

/** A transaction inside another would wait for a second connection; `inTransaction` joins the current one. */
const OPENS_TRANSACTION = {
  selector: "CallExpression[callee.property.name='transaction']",
  message: 'Use inTransaction of platform/db/transaction.',
};
/** Statements stand in queries/, where they have a name, a row type and bound values; the rest asks models. */
const ASKS_DATABASE = [
  {
    selector: 'CallExpression[callee.name=/^(select|execute)$/]',
    message: 'Use a model, or a named function in queries/.',
  },
  {
    selector: "CallExpression[callee.property.name='query']",
    message: 'Use a model, or a named function in queries/.',
  },
];
/** A literal says what it is, and a name stands by its value: neither is packed to save lines. */
const PACKED = [
  {
    selector: 'ObjectExpression > SpreadElement > ObjectExpression',
    message: 'Write the properties themselves.',
  },
  {
    selector: 'VariableDeclarator[id.type="ArrayPattern"][init.type="ArrayExpression"]',
    message: 'Declare each name by itself.',
  },
  {
    selector: 'AssignmentExpression[left.type="ArrayPattern"][right.type="ArrayExpression"]',
    message: 'Assign each name by itself.',
  },
];

/** The frame model and its texts are being replaced; their docstrings come with the new model. */
const FRAME_MODEL = [
  'core/src/runs/{model,calibration,limiter}/**',
  'core/src/runs/text/{toll,toll-figure}.ts',
];
/** Exported functions of the core say what they take and give; names of parameters follow the code. */
const DOCSTRINGS = {
  files: ['core/src/**/*.ts'],
  ignores: FRAME_MODEL,
  plugins: { jsdoc },
  settings: { jsdoc: { mode: 'typescript' } },
  rules: {
    'jsdoc/require-jsdoc': [
      'error',
      { publicOnly: true, require: { FunctionDeclaration: true }, enableFixer: false },
    ],
    'jsdoc/require-description': [
      'error',
      { contexts: ['ExportNamedDeclaration > FunctionDeclaration'] },
    ],
    'jsdoc/require-param': [
      'error',
      {
        contexts: ['ExportNamedDeclaration > FunctionDeclaration'],
        checkDestructuredRoots: true,
        checkDestructured: false,
        enableFixer: false,
      },
    ],
    'jsdoc/require-returns': [
      'error',
      { contexts: ['ExportNamedDeclaration > FunctionDeclaration'], enableFixer: false },
    ],
    'jsdoc/check-param-names': ['error', { checkDestructured: false }],
    'jsdoc/require-throws': [
      'error',
      { contexts: ['ExportNamedDeclaration > FunctionDeclaration'] },
    ],
  },
};

/** Controls are of the kit or of Material: one look, one keyboard, one way to say what is wrong. */
const has = (...attributes) => `:not(:has(${attributes.map((a) => `> ${a}`).join(', ')}))`;
const RAW_CONTROLS = [
  [
    `Element[name="input"]${has(
      'TextAttribute[name=/^(matInput|matSliderThumb|hidden)$/]',
      'BoundAttribute[name=/^(matAutocomplete|matChipInputFor)$/]',
    )}`,
    'A field is an rb-field.',
  ],
  [`Element[name="textarea"]${has('TextAttribute[name="matInput"]')}`, 'A field is an rb-field.'],
  [
    `Element[name="table"]${has('TextAttribute[name="mat-table"]')}`,
    'A list is an rb-table, or an rb-rows.',
  ],
  [
    `Element[name="button"]${has('TextAttribute[name=/^(mat|cdk)/]', 'BoundAttribute[name=/^mat/]')}`,
    'A button is a Material button.',
  ],
  [
    'Element[name=/^(select|dialog|details|progress|datalist|fieldset|meter)$/]',
    'Use the kit or the Material component.',
  ],
].map(([selector, message]) => ({ selector, message }));
/** The kit wraps the controls; drawings and printed pages are what Material has nothing for. */
const OWN_CONTROLS = [
  'web/src/app/platform/kit/**',
  'web/src/app/chain/strip/**',
  'web/src/app/plan/fit-picture*',
  'web/src/app/plan/fit-picture*/**',
  'web/src/app/compatibility/grid-view*',
  'web/src/app/sheet/**',
];

/** What fails is said in one way: by the kit. The layers below it hand failures on as values. */
const OWN_ERROR_HANDLER = {
  selector:
    "CallExpression[callee.property.name='subscribe'] > ObjectExpression > Property[key.name='error']",
  message: 'Use ask, Acts.run, Acts.send or Acts.read of platform/kit/ask.',
};
/** Styles inside a component keep the rules of stylelint.config.mjs, which reads style sheets only. */
const LOUD_STYLES = {
  selector:
    "Property[key.name='styles'] TemplateElement[value.raw=/#[0-9a-f]{3,8}\\b|!important|::ng-deep|\\.(mat-mdc|mdc)-/i]",
  message: 'No colour of its own, no !important, no ::ng-deep, no insides of Material.',
};
const HANDS_ERRORS_ON = ['web/src/app/platform/{kit,api,queue}/**'];

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/.angular/**',
      '**/node_modules/**',
      '.data*/**',
      'release/**',
      'docs/**',
      '**/zz-*',
    ],
  },
  js.configs.recommended,
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        module: 'writable',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        structuredClone: 'readonly',
        AbortSignal: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        performance: 'readonly',
        Buffer: 'readonly',
      },
    },
  },
  {
    files: ['**/*.ts', '**/*.mts'],
    extends: [...tseslint.configs.strict, ...tseslint.configs.stylistic],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'inline-type-imports', prefer: 'type-imports', disallowTypeAnnotations: false },
      ],
      eqeqeq: 'error',
      'no-restricted-syntax': ['error', ...PACKED],
    },
  },
  {
    // What reads the text of others takes time in step with its length: no expression may go back over it.
    files: ['{core,server,web,simbench}/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }],
    },
  },
  ...CORE_ARROWS,
  DOCSTRINGS,
  { files: ['simbench/src/**/*.ts'], rules: forbid(SERVER, WEB, CORE_INSIDES) },
  { files: ['server/src/**/*.ts'], rules: forbid(WEB, CORE_INSIDES) },
  ...SERVER_ARROWS,
  {
    files: ['server/src/**/*.ts'],
    ignores: ['server/src/platform/db/**'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      'no-restricted-syntax': ['error', ...PACKED, OPENS_TRANSACTION, ...ASKS_DATABASE],
      // Work that is not awaited would end after its transaction.
      '@typescript-eslint/no-floating-promises': 'error',
    },
  },
  {
    files: ['server/src/**/queries/*.ts'],
    rules: { 'no-restricted-syntax': ['error', ...PACKED, OPENS_TRANSACTION] },
  },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      ...forbid(...WEB_ALWAYS, KIT_WRAPS),
      'no-restricted-properties': [
        'error',
        { property: 'innerHTML', message: 'Text goes in as text.' },
        { property: 'outerHTML', message: 'Text goes in as text.' },
        { property: 'html', message: 'D3: use text(), never html().' },
      ],
      '@angular-eslint/component-selector': [
        'error',
        { type: 'element', prefix: 'rb', style: 'kebab-case' },
      ],
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
    },
  },
  ...WEB_ARROWS,
  ...WEB_KIT,
  {
    files: ['web/src/app/**/*.ts'],
    ignores: HANDS_ERRORS_ON,
    rules: { 'no-restricted-syntax': ['error', ...PACKED, OWN_ERROR_HANDLER, LOUD_STYLES] },
  },
  // A test drives Material by its harnesses.
  { files: ['web/src/**/*.spec.ts'], rules: forbid(...WEB_ALWAYS) },
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
  },
  {
    files: ['web/src/**/*.html'],
    ignores: OWN_CONTROLS,
    rules: { 'no-restricted-syntax': ['error', ...RAW_CONTROLS] },
  },
);
