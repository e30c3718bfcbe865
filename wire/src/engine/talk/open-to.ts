import { formatMac } from '@ipsonomo/core/net';
import type { TcpStream } from '../../carriers/carrier';
import { voiceIn, type TalkEvents } from './patience';
import { FieldRefusal, type FieldTarget } from '../../protocol';

const TCP_TIMEOUT = 3000;

/**
 * A conversation with a planned device at its address, once it is sure that it is the one: never a word to another that
 * happens to answer there. Refuses with `page.noVoice`, `talk.silent`, `talk.other`, `talk.closed`.
 */
export async function openTo(
  events: TalkEvents,
  { title, address: to, mac }: FieldTarget,
  port: number,
): Promise<TcpStream> {
  const subnetId = events.around(to).id;
  const macs = await events.whoIsAt(subnetId, to);
  const from = await voiceIn(events, subnetId);
  if (macs === 'no-voice' || from === undefined)
    throw FieldRefusal.of('page.noVoice', { at: title });
  const [first] = macs;
  if (first === undefined) throw FieldRefusal.of('talk.silent', { title });
  if (macs.size > 1 || (mac !== undefined && first !== mac))
    throw FieldRefusal.of('talk.other', { title, found: [...macs].map(formatMac).join(', ') });
  const stream = await events.open(subnetId, { from, to, port, timeout: TCP_TIMEOUT });
  if (typeof stream === 'string') throw FieldRefusal.of('talk.closed', { title, port });
  return stream;
}
