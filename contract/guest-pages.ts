/**
 * Pages that are a guest's own, whole paths with what may follow them: they are drawn from what the browser keeps, and
 * ask nothing of the server. Served over plain http too, where nobody signs in.
 */
export const GUEST_PAGES = /^\/(door|mix|keep|join|seat|help|shelf|bench|bench\/[^/?]+|piece\/[^/?]+\/[^/?]+|pour\/[^/?]+|practice|practice\/[^/?]+|practice\/course\/[^/?]+)\/?(\?|$)/
