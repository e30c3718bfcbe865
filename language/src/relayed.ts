// The words of what stands in place of a device's page.
export { RELAYED_TITLES, RELAYED_WORDS } from './en/relayed';
