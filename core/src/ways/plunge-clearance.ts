/** Height above the stock from which a plunge is fed, mm: a rapid move never ends in the wood. */
export const PLUNGE_CLEARANCE = 0.5;
