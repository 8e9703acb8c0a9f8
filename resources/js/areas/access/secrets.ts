// Fetched as one: apart, what the two share would be four more parts for every page to know of.
export { AccountPage } from './AccountPage';
export { MustPage } from './MustPage';
