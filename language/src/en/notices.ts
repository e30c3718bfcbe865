import type { Facts, NoticeCode, NoticeFacts, NoticeTold } from '@ipsonomo/core/plan';

/** Each in a sentence that says what it is and what to do. */
const WORDS: { readonly [C in NoticeCode]: (facts: NoticeFacts[C]) => string } = {
  'other-server': ({ server, mac, answered }) => {
    const who = mac === undefined ? server : `${server} (${mac})`;
    return answered === undefined
      ? `A DHCP server that the plan does not expect answers on this wire: ${who}. Ipsonomo does not answer beside it. Unplug it, or if it is meant to be there, name it in its subnet.`
      : `Another server answers ${answered}: ${who}. Ipsonomo has stopped answering. Switch the other off, or leave the giving to it.`;
  },
  'server-named': ({ server, by }) =>
    `${by} says that it was served by ${server}, which nobody has seen here. It is being looked for; if it answers, Ipsonomo stops.`,
  'left-to-server': ({ title, server }) =>
    `${title} is answered by ${server}, which the plan expects here. Ipsonomo leaves it to that server for ten minutes and goes on with the others. If it is to be answered from here, take it off that server.`,
  'no-other-server': ({ seconds }) =>
    `Asked for other DHCP servers for ${seconds} s: none answered. One that serves known devices only would not.`,
  'adapter-gone': () => 'The adapter is gone. Plug it in again; listening goes on by itself.',
  'page-lost': () =>
    'The page that let Ipsonomo answer was away for 30 s, so it has stopped. Let it answer again where you can see it.',
  'link-down': () => 'The cable has no link. Look at both its ends.',
  'voice-taken': ({ address, by }) =>
    `Ipsonomo wanted to speak from ${address}, but ${by} has it. It took the next free one.`,
  'no-voice': ({ subnet }) =>
    `${subnet} has no free address Ipsonomo could speak from, so it stays silent there. Keep a band for service laptops in the plan.`,
  unreadable: ({ by, why }) =>
    `${by} sends what cannot be read (${why}). It is kept in the capture and not believed: look at its firmware, or whether it is what it says it is.`,
  'sweep-too-wide': ({ subnet, addresses, most }) =>
    `${subnet} has ${addresses} addresses, more than the ${most} that are asked for. Of it only the planned devices are asked; strangers show only when they speak.`,
  'other-question': ({ by }) =>
    `${by} answers under the number of another question, so it cannot be told what it answers. Ask it alone on the cable; if it stays so, look at its firmware.`,
  'disk-full': () =>
    'The disk of the laptop is full. What cannot be kept is not done: listening has ended. Make room and start again.',
  'plan-untold': ({ why }) =>
    `The plan was changed, but the wire could not be told of it (${why}), so it fell silent. Let it answer again: it is told first then.`,
  'wire-taken': ({ by, from, what }) =>
    `${by} took the wire from ${from}, who was listening for ${what}. That run has ended; what it heard is kept.`,
  'silenced-from': ({ by, from }) =>
    `${by}${from === '' ? '' : ` at ${from}`} had every laptop fall silent, this one too. Ask before you let it answer again.`,
  'server-fell': ({ why }) =>
    `The server met an error that nobody foresaw (${why}). It fell silent on the wire first and was started again; everything that was acknowledged is kept. Choose the wire and begin again.`,
  'thread-fell': ({ why }) =>
    `The part that speaks on the wire met an error that nobody foresaw (${why}) and was started anew. Nothing is sent; choose the wire and begin again.`,
  'capture-full': () => 'The capture of this run is full. Evidence goes on being written.',
  'capture-gives-way': () =>
    'The wire is full of what others say: in the capture their older frames give way to younger ones. What devices of the plan and Ipsonomo say is kept whole, and so is the evidence.',
};

/** A notice as it is told. */
export function noticeWords({ code, facts }: NoticeTold): string {
  const words = WORDS[code] as (facts: Facts) => string;
  return words(facts as Facts);
}
