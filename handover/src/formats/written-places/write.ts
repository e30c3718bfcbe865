import { formatIpv4 } from '@ipsonomo/core/net';
import { writtenPlaces } from '@ipsonomo/core/written';
import { PLACE_HEADS, PLACE_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format } from '../../format';
import { localTime } from '../../parts/head';
import { csv } from '../../parts/csv';

/** R-WRITTEN: everywhere that an address or a name stands, with who ticked it off when. */
export const writtenPlacesCsv: Format = {
  id: 'written-places',
  write: (material) => {
    const rows = material.chosen.flatMap((one) =>
      writtenPlaces(material.plan, one).map(({ kind, holder, value, key }) => {
        const tick = material.ticks?.get(`${one.at.id} ${key} ${value}`);
        return [
          ...[one.device.title, formatIpv4(one.at.address), PLACE_WORDS[kind], holder, value],
          ...(tick ? [tick.person, localTime(tick.at)] : ['', '']),
        ];
      }),
    );
    const content = csv(PLACE_HEADS, rows);
    return { files: [{ name: fileName(material, 'where written', '.csv'), content }], left: [] };
  },
};
