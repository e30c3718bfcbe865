import { costOf, orderRound, type RoundCall, type RoundCost } from '@ipsonomo/core/round';
import { AskedThread } from '../common/asked-thread';

export interface Ordered {
  /** Ids of interfaces. */
  readonly order: readonly string[];
  readonly cost: RoundCost;
}

const PROGRAM = { bundle: 'thinking.worker.js', source: 'server/src/service/thinking.worker.ts' };
const MEMORY = { maxOldGenerationSizeMb: 512, maxYoungGenerationSizeMb: 64 };
/** A round of so few calls is ordered quicker than a thread is asked. */
const AT_ONCE = 40;
const MOST_WAITING = 32;

/** What takes long is computed in a thread of its own. */
export class Thinking {
  private readonly thread = new AskedThread<readonly RoundCall[], Ordered>(PROGRAM, {
    ...{ memory: MEMORY, most: MOST_WAITING },
  });

  order(calls: readonly RoundCall[]): Promise<Ordered> {
    return calls.length <= AT_ONCE ? Promise.resolve(ordered(calls)) : this.thread.ask(calls);
  }

  close(): Promise<void> {
    return this.thread.close();
  }
}

export function ordered(calls: readonly RoundCall[]): Ordered {
  const order = orderRound(calls);
  return { order: order.map(({ id }) => id), cost: costOf(order) };
}
