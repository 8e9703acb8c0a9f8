/** Where a browser keeps which room's list it opened, until its tab is closed. */
export const ROOM = 'vantrel.room';
