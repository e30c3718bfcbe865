import { formatIpv4, formatMac } from '../net';
import { findKind, findSubnet, interfacesOf, stationNameOf, WAY_WORDS, type Plan } from '../plan';
import { macDigitsOf, wordsOf } from './words';

interface Line {
  readonly id: string;
  readonly text: string;
  readonly macs: string;
}

/** What each interface of a plan goes by where a list is narrowed down: its names, place, kind, way and subnet. */
export class NarrowBook {
  private readonly lines: readonly Line[];

  constructor(plan: Plan) {
    this.lines = interfacesOf(plan).map(({ device, at }) => {
      const kind = findKind(plan, device.kindId);
      const { title, name, dhcpName, area, cabinet, position, serial } = device;
      const place = [area, cabinet, position, serial, findSubnet(plan, at.subnetId)?.name];
      const what = [kind?.maker, kind?.name, kind?.orderNumber, WAY_WORDS[device.way]];
      const names = [
        title,
        at.label,
        name,
        stationNameOf(device),
        dhcpName,
        formatIpv4(at.address),
      ];
      return {
        id: at.id,
        text: [...names, ...place, ...what].filter(Boolean).join(' ').toLowerCase(),
        macs: at.mac === undefined ? '' : formatMac(at.mac).replaceAll(':', ''),
      };
    });
  }

  /**
   * R-NARROW: the interfaces that have every word in what they go by; undefined where nothing is wanted, and so all are.
   * @param more words that change while one works: a stage, an outcome
   */
  narrow(
    wanted: string,
    more: (interfaceId: string) => string = () => '',
  ): ReadonlySet<string> | undefined {
    const words = wordsOf(wanted);
    if (words.length === 0) return undefined;
    const mac = macDigitsOf(wanted);
    const isMeant = ({ id, text, macs }: Line): boolean => {
      if (mac !== undefined && macs.includes(mac)) return true;
      const all = `${text} ${more(id).toLowerCase()}`;
      return words.every((word) => all.includes(word));
    };
    return new Set(this.lines.filter(isMeant).map(({ id }) => id));
  }
}
