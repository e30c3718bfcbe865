/** A number, or a text as somebody wrote it. */
type Value = string | number;
type None = Readonly<Record<never, never>>;

/** In what way a value of a file does not fit its place. */
export type Misfit =
  | {
      readonly misfit:
        | ('text' | 'id' | 'sha-256' | 'base64' | 'boolean' | 'list' | 'object')
        | ('unknown' | 'missing');
    }
  | { readonly misfit: 'integer'; readonly least: number; readonly most: number }
  | { readonly misfit: 'too-long' | 'too-many'; readonly have: number; readonly most: number }
  | { readonly misfit: 'choice'; readonly options: string }
  | {
      readonly misfit: 'control' | 'half-character';
      readonly sign: string;
      readonly place: number;
    };

/** Why what was sent could not be read at all. */
export type Unread =
  | ('address' | 'body' | 'not-json' | 'length' | 'parts' | 'broken-off' | 'other-site')
  | ('packing' | 'packed-wrongly' | 'character-set');

/**
 * Everything that can be refused, and what is known of it then: what a sentence needs. The catalogue of codes; the first
 * part of a code is its family.
 */
export interface IssueFacts {
  readonly 'ipv4.empty': None;
  readonly 'ipv4.space': None;
  readonly 'ipv4.parts': { readonly have: Value };
  readonly 'ipv4.digits': { readonly part: Value; readonly text: Value };
  readonly 'ipv4.leadingZero': { readonly text: Value };
  readonly 'ipv4.octet': { readonly part: Value };
  readonly 'prefix.slash': None;
  readonly 'prefix.digits': None;
  readonly 'prefix.leadingZero': None;
  readonly 'prefix.range': None;
  readonly 'prefix.hostBits': { readonly network: Value };
  readonly 'mask.gap': None;
  readonly 'range.order': { readonly first: Value; readonly last: Value };
  readonly 'mac.length': { readonly have: Value };
  readonly 'mac.notation': None;
  readonly 'mac.group': None;
  readonly 'hex.empty': None;
  readonly 'hex.letter': None;
  readonly 'hex.odd': { readonly have: Value };
  readonly 'file.missing': None;
  readonly 'pcap.magic': None;
  readonly 'pcap.link': None;
  readonly 'pcap.cut': { readonly at: Value };
  readonly 'pcap.broken': { readonly at: Value };
  readonly 'bytes.unreadable': { readonly at: Value; readonly need: Value; readonly have: Value };
  readonly 'name.empty': None;
  readonly 'name.space': None;
  readonly 'name.length': { readonly have: Value };
  readonly 'name.label': { readonly have: Value };
  readonly 'name.letter': None;
  readonly 'name.hyphen': None;
  readonly 'name.numeric': None;
  readonly 'name.taken': { readonly holder: Value };
  readonly 'station.empty': None;
  readonly 'station.length': { readonly have?: Value };
  readonly 'station.label': None;
  readonly 'station.letter': None;
  readonly 'station.capital': None;
  readonly 'station.hyphen': None;
  readonly 'station.doubleHyphen': None;
  readonly 'station.numeric': None;
  readonly 'station.port': None;
  readonly 'dhcpName.empty': None;
  readonly 'dhcpName.length': { readonly have?: Value };
  readonly 'variable.empty': None;
  readonly 'variable.letter': None;
  readonly 'variable.digit': None;
  readonly 'variable.underscore': None;
  readonly 'variable.length': { readonly have?: Value; readonly most: Value };
  readonly 'known.nothing': None;
  readonly 'card.name': None;
  readonly 'card.unknown': { readonly device: Value };
  readonly 'card.word': { readonly words: Value };
  readonly 'pattern.empty': None;
  readonly 'pattern.brace': None;
  readonly 'pattern.word': { readonly words: Value };
  readonly 'switches.count': { readonly have: Value; readonly need: Value };
  readonly 'switches.position': {
    readonly place: Value;
    readonly label: Value;
    readonly most: Value;
  };
  readonly 'switches.base': { readonly base: Value };
  readonly 'switches.never': None;
  readonly 'switches.label': None;
  readonly 'switches.weight': None;
  readonly 'switches.number': { readonly least: Value; readonly most: Value };
  readonly 'switches.order': None;
  readonly 'switches.pattern': None;
  readonly 'switches.noMeaning': None;
  readonly 'switches.none': None;
  readonly 'split.outside': { readonly name: Value; readonly block: Value };
  readonly 'split.overlap': { readonly name: Value; readonly other: Value };
  readonly 'split.small': { readonly name: Value; readonly hosts: Value };
  readonly 'file.value': Misfit;
  readonly 'file.json': { readonly why: Value };
  readonly 'file.format': None;
  readonly 'file.version': { readonly have: Value; readonly most: Value };
  readonly 'file.empty': None;
  readonly 'file.noText': None;
  readonly 'file.noDevice': None;
  readonly 'file.noIdentity': None;
  readonly 'file.xml': { readonly why: Value };
  readonly 'file.deep': { readonly most: Value };
  readonly 'file.crowded': None;
  readonly 'file.fell': { readonly why: Value };
  readonly 'package.fell': { readonly why: Value };
  readonly 'package.nothing': None;
  readonly 'package.wrong': { readonly count: Value };
  readonly 'paper.empty': None;
  readonly 'paper.large': { readonly most: Value };
  readonly 'paper.full': { readonly most: Value };
  readonly 'paper.missing': None;
  readonly 'paper.changed': None;
  readonly 'file.twice': { readonly id: Value };
  readonly 'person.needed': None;
  readonly 'rehearse.asked': None;
  readonly 'cell.empty': None;
  readonly 'cell.needed': None;
  readonly 'cell.long': { readonly have: Value; readonly most: Value };
  readonly 'cell.kind': None;
  readonly 'cell.subnet': None;
  readonly 'cell.way': None;
  readonly 'cell.device': None;
  readonly 'cell.noInterface': None;
  readonly 'cell.vlanNumber': None;
  readonly 'cell.vlan': { readonly subnet: Value; readonly planned: Value };
  readonly 'cell.maker': { readonly kind: Value; readonly maker: Value };
  readonly 'cell.orderNumber': { readonly kind: Value; readonly orderNumber: Value };
  readonly 'copy.nothing': None;
  readonly 'copy.offset': { readonly subnet: Value; readonly size: Value };
  readonly 'copy.range': None;
  readonly 'subnet.vlan': None;
  readonly 'need.number': None;
  readonly 'split.full': {
    readonly block: Value;
    readonly wanted: Value;
    readonly largest?: Value;
  };
  readonly 'kind.noWay': None;
  readonly 'kind.noSwitches': None;
  readonly 'kind.unknown': { readonly known?: Value };
  readonly 'edit.conflict': { readonly count: Value };
  readonly 'undo.none': None;
  readonly 'redo.none': None;
  readonly 'address.held': { readonly note: Value };
  readonly 'address.never': { readonly block: Value };
  readonly 'address.outside': { readonly subnet: Value; readonly network: Value };
  readonly 'address.network': { readonly network: Value };
  readonly 'address.broadcast': { readonly network: Value };
  readonly 'address.gateway': { readonly subnet: Value };
  readonly 'address.taken': { readonly holder: Value };
  readonly 'address.band': { readonly band: Value };
  readonly 'address.full': None;
  readonly 'subnet.never': { readonly block: Value };
  readonly 'subnet.tooWide': None;
  readonly 'subnet.overlap': { readonly other: Value; readonly network: Value };
  readonly 'gateway.outside': { readonly network: Value };
  readonly 'gateway.network': { readonly network: Value };
  readonly 'gateway.broadcast': { readonly network: Value };
  readonly 'mac.taken': { readonly holder: Value };
  readonly 'label.differs': { readonly heard: Value };
  /** `why` is the sentence of the library that checks what comes in. */
  readonly 'body.invalid': Misfit | { readonly unread: Unread } | { readonly why: string };
  readonly 'body.tooLarge': None;
  readonly 'door.locked': None;
  readonly 'door.wrongKey': None;
  readonly 'door.tooMany': { readonly most: Value };
  readonly 'door.busy': None;
  readonly 'door.full': None;
  readonly 'door.slow': { readonly seconds: Value };
  readonly 'people.nameTaken': { readonly name: Value };
  readonly 'people.lastKeeper': None;
  readonly 'people.wrong': None;
  readonly 'people.wrongOld': None;
  readonly 'people.password': { readonly least: Value; readonly most: Value };
  readonly 'people.plainPassword': None;
  readonly 'right.missing': { readonly need: Value; readonly have: Value };
  readonly 'right.send': { readonly wire: Value };
  readonly 'thing.unknown': None;
  readonly 'page.noPort': { readonly port: Value; readonly last: Value };
  readonly 'wire.otherName': { readonly host: Value };
  readonly 'field.hastened': None;
  readonly 'field.noWire': None;
  readonly 'field.notListening': None;
  readonly 'field.noLink': None;
  readonly 'field.unbound': { readonly title: Value };
  readonly 'field.busy': { readonly title: Value };
  readonly 'field.stopped': { readonly title: Value };
  readonly 'field.unknownTarget': None;
  readonly 'field.noJournal': { readonly why: Value };
  readonly 'field.fellOver': None;
  readonly 'wire.noAdapter': { readonly adapter: Value };
  readonly 'wire.noRight': { readonly adapter: Value };
  readonly 'wire.failed': { readonly adapter: Value; readonly errno: Value };
  readonly 'wire.inUse': { readonly person: Value; readonly what: Value };
  readonly 'wire.tooMany': { readonly count: Value };
  readonly 'wire.ownWeb': { readonly adapter: Value };
  readonly 'station.silent': { readonly mac: Value };
  readonly 'station.refused': { readonly mac: Value; readonly why: Value };
  readonly 'read.nothing': None;
  readonly 'device.otherKind': {
    readonly title: Value;
    readonly planned: Value;
    readonly found: Value;
    readonly name: Value;
  };
  readonly 'device.otherRevision': {
    readonly title: Value;
    readonly planned: Value;
    readonly found: Value;
  };
  readonly 'device.inUse': { readonly title: Value; readonly controller?: Value };
  readonly 'device.mayBeUsed': {
    readonly title: Value;
    readonly sign: Value;
    readonly by: Value;
    readonly seconds: Value;
  };
  readonly 'page.none': { readonly title: Value };
  readonly 'page.nowhere': { readonly title: Value };
  readonly 'page.noVoice': { readonly at: Value };
  readonly 'page.silent': { readonly title: Value; readonly at: Value };
  readonly 'page.several': { readonly at: Value; readonly count: Value; readonly found: Value };
  readonly 'page.other': { readonly title: Value; readonly at: Value; readonly found: Value };
  readonly 'proof.nothing': None;
  readonly 'proof.nothingLeft': None;
  readonly 'vigil.tooMany': { readonly count: Value; readonly most: Value };
  readonly 'entered.empty': None;
  readonly 'entered.unit': None;
  readonly 'entered.number': None;
  readonly 'path.none': None;
  readonly 'talk.silent': { readonly title: Value };
  readonly 'talk.other': { readonly title: Value; readonly found: Value };
  readonly 'talk.closed': { readonly title: Value; readonly port: Value };
  readonly 'register.area': None;
  readonly 'register.range': None;
  readonly 'vigil.none': None;
  readonly 'sweep.tooWide': {
    readonly subnet: Value;
    readonly addresses: Value;
    readonly most: Value;
    readonly minutes: Value;
  };
  readonly 'walk.unknownSubnet': None;
  readonly 'route.unknown': None;
  readonly 'field.planGone': None;
  readonly 'pin.noObject': { readonly title: Value };
  readonly 'store.away': None;
  readonly 'store.busy': None;
  readonly 'server.busy': { readonly count: Value };
  readonly 'server.thinking': { readonly why: Value };
  readonly 'reading.busy': { readonly count: Value };
  readonly 'list.large': { readonly most: Value };
  readonly 'list.empty': None;
  readonly 'list.binary': None;
  readonly 'list.old': None;
  readonly 'list.long': { readonly most: Value };
  readonly 'list.wide': { readonly most: Value };
  readonly 'list.csv': { readonly line: Value; readonly why: Value };
  readonly 'list.xlsx': { readonly why: Value };
  readonly 'list.fell': { readonly why?: Value };
  readonly 'list.reading': None;
  readonly 'list.nothing': None;
  readonly 'job.taken': None;
  readonly 'job.otherName': None;
  readonly 'job.notArchived': None;
  readonly 'job.notWritten': None;
  readonly 'rehearsal.none': None;
  readonly 'rehearsal.live': None;
  readonly 'rehearsal.ended': None;
  readonly 'store.conflict': None;
  readonly 'photo.unreadable': None;
  readonly 'photo.large': { readonly most: Value };
  /** All photos of a job together. */
  readonly 'photo.full': { readonly most: Value };
  readonly 'photo.missing': None;
  readonly 'note.empty': None;
  /** What another laptop wrote cannot be taken in. */
  readonly 'bundle.unreadable': { readonly why: Value };
  readonly 'bundle.cut': None;
  readonly 'bundle.changed': None;
  readonly 'bundle.newer': { readonly have: Value; readonly most: Value };
  readonly 'bundle.large': { readonly most: Value };
  readonly 'bundle.otherJob': { readonly name: string };
  /** A chain of evidence that does not hold. */
  readonly 'bundle.chain': { readonly place: Value };
  /** The same laptop told another past before. */
  readonly 'bundle.history': None;
  readonly 'bundle.rehearsal': None;
  /** Kept in a browser by somebody else than whoever sends it. */
  readonly 'waiting.ofAnother': { readonly person: string };
  /** A browser has no room to keep what cannot be sent now. */
  readonly 'waiting.full': None;
  /** Somebody else is at the device. */
  readonly 'call.taken': { readonly person: string };
  readonly 'server.away': None;
  /** What is sent on a wire is sent by the server, or not at all. */
  readonly 'server.awayForWire': None;
  readonly 'server.failed': None;
}

export type IssueCode = keyof IssueFacts;

/** The first part of a code: `ipv4` of `ipv4.octet`. */
export type IssueFamily = IssueCode extends `${infer Family}.${string}` ? Family : never;

/** Where no fact is needed, none need be given. */
type Told<F> = None extends F
  ? { readonly facts?: F & Anywhere }
  : { readonly facts: F & Anywhere };

/** Of any refusal: the place in a file, where it came with one (`devices.3.address`). */
interface Anywhere {
  readonly path?: string;
}

/** What is wrong, by a code, where, and with the facts of that code. */
export type IssueOf<C extends IssueCode> = {
  readonly [K in C]: {
    readonly code: K;
    /** The value, field or part that is refused, as the person wrote it. */
    readonly where: string;
  } & Told<IssueFacts[K]>;
}[C];
