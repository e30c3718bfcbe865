import { messages } from '../message';

// What a terminal is told: by the server as it starts and ends, and by the command line.

export const SERVER_WORDS = messages({
  isReadyAt: 'Ipsonomo is ready at {place}.',
  isReadyAtWithKey: 'Ipsonomo is ready at {place}. A key to come in: npm run ipsonomo -- key',
  isReadyWithoutKey: 'Ipsonomo is ready, but no key could be made: {why}',
  signInAt: 'Ipsonomo is ready. Sign in at:',
  aKeyForSomebodyNew: 'A key for somebody new: Jobs → People, or npm run ipsonomo -- key',
  demoOpens:
    'Ipsonomo is ready. This is a demo: whoever opens it with this key is in, for a day, and may do everything:',
  firstOpens:
    'Ipsonomo is ready. The first who opens it with this key keeps it: they let others in, and see to wires:',
  keyOpens: 'Whoever is the first to open it with this key is let in; it is good for a day:',
  onThisMachine: 'on this machine',
  onThisMachineAlone: 'It listens on this machine alone. HOST=0.0.0.0 lets phones in.',
  theKeyToType: 'The key, to type: {key}',
  evidenceBroken:
    'Evidence {id} ({kind}) of job {job} is not what was written: npm run ipsonomo -- audit',
  tlsNeedsBoth: 'TLS needs both: TLS_CERT and TLS_KEY, two files in PEM.',
  certificateUnread: '{file} cannot be used: {why}',
  socketTooLong: '{path} is too long for a socket: the command line cannot reach this server.',
  backupFailed: 'Nothing was changed: the backup before {due} failed ({why}).',
  backupKept: 'The database as it was before {due} is kept in {file}.',
  noDumpProgram: 'pg_dump is not installed (Debian: postgresql-client)',
  mayNotChangeTables:
    'The role of DATABASE_URL may not change tables. Give the one that owns them as DATABASE_OWNER_URL (docs/OPERATIONS.md).',
  portInUse: 'Port {port} is in use. Stop what uses it, or choose another: PORT=4781 npm run demo',
  couldNotStart: 'The web server could not start on {place}: {why}',
  noDatabaseUrl: 'DATABASE_URL is not set. npm run demo brings its own database.',
  databaseTaken: 'Another server took the database meanwhile: {owner}.',
  databaseSilent: 'The database does not answer. Is PostgreSQL running, and DATABASE_URL right?',
  databaseOwned:
    'This server runs already: {owner}. Stop it, or give IPSONOMO_DATA and DATABASE_URL of another one.',
  databaseChanging:
    'The tables of this database are being brought up to date by {owner}. Start again when that is done.',
  databaseInUse:
    'The tables of this database have to be brought up to date, and others work with them: {owner}. Stop those first.',
  encryptedAt:
    'Encrypted, for phones that trust it (in the application: What waits to be sent → Trust this laptop):',
  authorityIs: 'Its authority has the SHA-256 fingerprint {fingerprint}',
  httpsPortInUse:
    'Port {port} is in use, so nothing is encrypted. Set HTTPS_PORT to another one, or to off.',
  databaseAway: 'The database is out of reach. What goes on goes on; it is tried again and again.',
  databaseBack: 'The database is there again.',
  diskFull: 'The disk is full. Make room and start again.',
  mayNotWrite: 'Ipsonomo may not write to {path}. Give it the right, or set IPSONOMO_DATA.',
  refusesUnnamed: '{act} refuses with {code}, which its contract does not name',
  linesLeftOut: '{count, plural, one {# more line was} other {# more lines were}} left out',
  evidenceNotWritten: 'evidence not written, kept in {file}: {why}',
  lineUnread: 'a line of {path} that cannot be read',
});

export const COMMAND_WORDS = messages({
  whichDatabase: 'DATABASE_URL is not set: say which database is to be looked at.',
  whichDatabaseAsOwner:
    'DATABASE_OWNER_URL is not set: say which database is meant, as the role that owns it.',
  evidenceWhole: 'All evidence is as it was written.',
  chainBreaks:
    'The chain breaks at {count, plural, one {# piece} other {# pieces}} of evidence: changed, or one before is gone.',
  folded:
    'Of job {job} {count, plural, one {# piece was} other {# pieces were}} folded into counts, last on {at} by {person}; the chain goes on across them.',
  latestUnlike:
    'What is kept of the latest evidence is not what all of it says at {count, plural, one {# place} other {# places}}: npm run ipsonomo -- audit --mend makes it anew.',
  databaseCannotBeAsked: 'The database cannot be asked: {why}',
  noNumberOfDays:
    '"{text}" is no number of days: say how old evidence is that may be folded, 90 for instance.',
  nothingToFold: 'Nothing older than {days, plural, one {# day} other {# days}} is to be folded.',
  wereFolded:
    '{count, plural, one {# piece was} other {# pieces were}} folded: that a device asked, as before and again later. Each is counted at the first of its like.',
  chainBreaksSee: 'The chain of the evidence breaks: npm run ipsonomo -- audit',
  nothingFolded: 'Nothing was folded: {why}',
  framesUnread:
    '{path}: {unread} of {all, plural, one {# frame} other {# frames}} could not be read.',
  noServerAnswers: 'No server answers at {path}. Start it first.',
  nobodyIsCalled: 'Nobody here is called “{name}”.',
  noSuchAct: '“{act}” is none of key, role, end.',
  formatsAre: '--as takes one of: {formats}',
  saysWhereTo:
    '{format} has {count, plural, one {# file} other {# files}}, or none that is a text: say where with --out FOLDER',
  theBroadcastAddress: 'the broadcast address',
  hostOf: 'host {number} of {all}',
  outside: 'outside',
  notAllowed: 'not allowed',
  theMessage: 'The message',
  theFrame: 'The frame',
  theNeeds: 'The list of needs',
  noFile: 'There is no file {path}.',
});

export const USAGE = `usage:
  ipsonomo subnet NETWORK…             what a network is: 172.22.40.0/24, 10.4.9.77/21, 10.4.9.77 255.255.248.0
  ipsonomo decode HEX…                 an Ethernet frame, or a bare BootP/DHCP message
  ipsonomo pcap FILE…                  every BootP/DHCP message of a capture
  ipsonomo check PLAN…                 the snags of a plan file; exit code 1 where one is wrong
  ipsonomo describe FILE…              the kinds of a description file (EDS, GSDML), and what of it cannot be read
  ipsonomo split BLOCK NEEDS.json      networks for [{"name", "devices", "growthPercent", "fixed"?}]
  ipsonomo names NAME…                 what a name may be used for, and why not
  ipsonomo switches KIND ADDRESS       how the switches must stand
  ipsonomo switches KIND --read 0,8,6  what they say
  ipsonomo diff PLAN PLAN              what makes the second plan of the first
  ipsonomo route PLAN FROM TO          there and back, hop by hop, and why not; devices by address or name
  ipsonomo rehearse PLAN [--people N] [--faults SEED]
                                       how long its round takes, by cabinet, what holds it up, what would save how much
  ipsonomo export PLAN --as csv|xlsx|dnsmasq|dhcpd|kea|hosts|zone|firewall|nftables|labels|connections|targets|… [--out FILE]
                                       a plan file in a format that others read; what it cannot hold is told
  ipsonomo import FILE [--into PLAN] [--out PLAN]
                                       a capture, leases, reservations, what arp, ip neigh, ipconfig and fping print, or a
                                       list of devices (CSV, XLSX), held against a plan and brought into it
  ipsonomo verify PROOF [HEAD]         what a proof shows, and what it does not; HEAD as it is printed on paper
  ipsonomo schema                      the JSON Schema of plan files
  ipsonomo audit                       evidence that somebody changed by hand (DATABASE_URL, else the demo's own)
  ipsonomo audit --mend                what is kept of the latest evidence made anew (DATABASE_OWNER_URL)
  ipsonomo fold DAYS                   evidence older than that which only says once more that a device asked, as a count (DATABASE_OWNER_URL)
  ipsonomo key [look|plan|assign|keep] a key that lets somebody new in, with a QR code for a phone (of the server that runs here)
  ipsonomo people                      every account, and what it may do
  ipsonomo people key NAME             a key with which somebody comes in again, whatever they have forgotten
  ipsonomo people role NAME ROLE       lets them do more, or less
  ipsonomo people end NAME             takes their account away; what they did stays
  ipsonomo keys [take-back ID]         who was let in, and which keys are good; one of them no longer`;
