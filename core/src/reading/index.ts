export * from './types';
export { readLspci, MOST_CHARS } from './lspci';
export { readReport, readJsonReport } from './read';
export { deviceTree, spanAbove, above, type Node, type Span, type SpanKind } from './tree';
export { measure, isDisplay, type FoundCard, type Measured } from './measured';
export { hostDraft, type HostDraft, type Unsaid } from './host-draft';
