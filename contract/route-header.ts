/**
 * The header in which an answer names the route it belongs to, by its contract: what something on the way says in its
 * place (a proxy, a page that wants a password for the network, another question's answer) is told apart by it.
 */
export const ROUTE_HEADER = 'x-nine-ripples-route'

/** As whom a page asks: its answer is refused where somebody else is signed in by now. */
export const PERSON_HEADER = 'ripples-person'
