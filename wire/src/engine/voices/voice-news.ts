import type { HostNews } from '@ipsonomo/core/host';
import type { Unit } from '../unit';

/** What our own addresses on the wire tell, to whom it concerns. */
export function spreadNews(
  units: readonly Unit[],
  streams: { news(news: HostNews): void },
  subnetId: string,
  news: HostNews,
  now: number,
): void {
  if (news.kind === 'claimed') for (const unit of units) unit.voiceReady?.(subnetId, now);
  else if (news.kind === 'dropped')
    for (const unit of units)
      unit.dropped?.(news.from, news.drop, news.identifier, news.sequence, now);
  else if (news.kind === 'pong')
    for (const unit of units) unit.pong?.(news.from, news.identifier, news.sequence, now);
  else streams.news(news);
}
