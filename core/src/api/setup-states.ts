/** How far a setup is; apart from the schemas, so that the first page carries no schema library. */
export const SETUP_STATES = ['planned', 'building', 'live', 'retired'] as const;
