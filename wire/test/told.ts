import { evidenceWords, noticeWords, sentenceOf } from '@ipsonomo/language';
import type { Issue } from '@ipsonomo/core/net';
import { readEvidence } from '@ipsonomo/core/plan';
import { FieldRefusal, type FieldTarget } from '../src/protocol';
import { ip, mac, target } from './bench';
import { Site } from './site';

// What a person does at the practice site, and what they are told by it.

export const camera = target({
  ...{ interfaceId: 'one', title: 'Inspection camera', mac: undefined, way: 'web-page' },
  ...{ address: ip('172.22.40.151'), heardBy: 'seen', factory: ip('192.168.77.10'), page: 80 },
});
export const valves = target({
  ...{ interfaceId: 'one', title: 'Oxygen valve block', mac: mac('02:4c:7a:40:51:62') },
  ...{ address: ip('172.22.40.104'), hasIdentity: true, revision: '2.7' },
});
export const block = (macText: string, name: string): FieldTarget =>
  target({
    ...{ interfaceId: 'one', title: 'Sorting block', mac: mac(macText), way: 'layer2-name' },
    ...{ address: ip('172.22.40.115'), heardBy: 'discovered', stationName: name },
  });

/** What a person is told, whichever way it comes. */
export class Told {
  refusals: string[] = [];

  constructor(readonly site: Site) {}

  async tries(act: () => Promise<unknown> | undefined | void): Promise<void> {
    const doing = Promise.resolve(act()).then(() => undefined);
    await this.site.through(doing).catch((error: unknown) => {
      if (!(error instanceof FieldRefusal)) throw error;
      this.refusals.push(sentenceOf({ ...error.told, where: '' } as Issue));
    });
  }

  get all(): readonly string[] {
    const { notices } = this.site.engine.status();
    return [
      ...this.refusals,
      ...notices.map(noticeWords),
      ...this.site.events.map(({ kind, facts }) => evidenceWords(readEvidence(kind, facts))),
    ];
  }
}

export const openPage = (told: Told) =>
  told.tries(() => told.site.engine.acts.openPage('one', 'Mara'));
export const give = (giving: 'name' | 'stored') => async (told: Told) => {
  await told.tries(() => told.site.engine.acts.stations.search());
  await told.tries(() =>
    told.site.engine.acts.giveStation({ interfaceId: 'one', person: 'Mara' }, giving),
  );
};
export const armed = async ({ site }: Told) => {
  site.engine.arm(600_000, 'Mara');
  await site.advance(40);
};
export const pinned = async (told: Told) => {
  await armed(told);
  await told.tries(() => told.site.engine.acts.pin({ interfaceId: 'one', person: 'Mara' }));
};
