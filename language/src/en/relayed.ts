import { messages } from '../message';

// What a browser is told in place of a device's page: a heading, and what to do.

export const RELAYED_TITLES = messages({
  barred: 'Not through this adapter',
  notLetIn: 'Not this browser',
  noPage: 'No page is open',
  away: 'The device does not answer',
  unreadable: 'The device says what no browser understands',
  leadsElsewhere: 'The page leads somewhere else',
  notPassedOn: 'That cannot be passed on',
  tooMany: 'Too much at once',
});

export const RELAYED_WORDS = messages({
  barred: 'This page comes in through the adapter of the plant. Open it from another network.',
  notLetIn:
    'This page was opened from another browser. Open it from the call of the device in this one.',
  noPage:
    'It was closed, because nobody read it or somebody fell silent. Open it again from the call of the device.',
  away: 'It said nothing at {host}. After "restart" or "apply" that is as it should be: it is on the way to its new address. Go back to the call, which goes on looking for it.',
  unreadable:
    'What it answered at {host} is no HTTP that can be handed on. Load the page again; if it stays so, use its maker’s way.',
  leadsElsewhere:
    'The device at {host} sends the browser to {to}. If that is its new address, go back to the call: it is looked for there.',
  notPassedOn:
    'What the browser asked for cannot be said to a device as it is. Go back and open the page again.',
  tooMany:
    'The device is asked for more than it can give at once. Load the page again in a moment.',
});
