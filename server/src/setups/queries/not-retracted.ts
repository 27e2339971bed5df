/** Condition on an event `e`: no later event takes it back. */
export const NOT_RETRACTED = `NOT EXISTS (SELECT 1 FROM events c WHERE c.corrects = e.id AND c.kind = 'struck')`;
