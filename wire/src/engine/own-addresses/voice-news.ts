import type { HostNews } from '@ipsonomo/core/host';
import type { Ipv4 } from '@ipsonomo/core/net';
import type { Drop } from '@ipsonomo/core/wire';

interface Listeners {
  readonly giving: { voiceReady(subnetId: string, now: number): void };
  readonly streams: { news(news: HostNews): void };
  readonly walks: {
    dropped(from: Ipv4, drop: Drop, identifier: number, sequence: number, now: number): void;
  };
  /** Who may have asked by ping. */
  readonly askers: readonly {
    pong(from: Ipv4, identifier: number, sequence: number, now: number): void;
  }[];
}

/** What our own addresses on the wire tell, to whom it concerns. */
export function spreadNews(
  { giving, streams, walks, askers }: Listeners,
  subnetId: string,
  news: HostNews,
  now: number,
): void {
  if (news.kind === 'claimed') giving.voiceReady(subnetId, now);
  else if (news.kind === 'dropped')
    walks.dropped(news.from, news.drop, news.identifier, news.sequence, now);
  else if (news.kind === 'pong')
    for (const one of askers) one.pong(news.from, news.identifier, news.sequence, now);
  else streams.news(news);
}
