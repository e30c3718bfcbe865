import type { Plan } from '../../src/plan';
import { snagsOf, type SnagRule } from '../../src/snags';
import { subnets } from './spoil';
import { at, device, DRIVE, HALL, ip, moved, OTHER, ownKind, withDevices } from './world';

// More ways to be wrong by a rule, and what looks wrong by it and is right.

const rules = (plan: Plan) => snagsOf(plan).map((one) => one.rule);

const ownModular = ownKind('osterhew-controller-k', {
  id: 'own-modular',
  hasIndependentHosts: true,
});

const panel = device('panel', '172.22.40.70', {
  ...{ kindId: 'kilvane-panel-12', way: 'keypad', controllerId: 'plc' },
});
/** A controller whose network modules are hosts of their own, with one address in two realms. */
const modular = (realmId: string): Plan => {
  const interfaces = [
    at('big', '172.22.40.15'),
    at('big', '172.22.40.15', { id: 'big-2', subnetId: 'twin' }),
  ];
  const big = device('big', '172.22.40.15', {
    ...{ kindId: ownModular.id, way: 'switches', interfaces },
  });
  const plan = withDevices(big);
  return {
    ...plan,
    kinds: [ownModular],
    realms: [...plan.realms, { id: 'machine', name: 'Machine', note: '' }],
    subnets: [...plan.subnets, { ...HALL, id: 'twin', name: 'Twin', vlan: undefined, realmId }],
  };
};

test.each<[string, Plan, SnagRule]>([
  ['a home network within a /23', subnets('192.168.0.0/23'), 'S-SUBNET-HOME'],
  ['a /25 of a home network', subnets('10.0.0.128/25'), 'S-SUBNET-HOME'],
  [
    'a gateway of its own that is the network',
    moved(DRIVE, { gateway: ip('172.22.40.0') }),
    'S-OWN-GATEWAY',
  ],
  [
    'one that is its broadcast address',
    moved(DRIVE, { gateway: ip('172.22.40.255') }),
    'S-OWN-GATEWAY',
  ],
  [
    'variables that differ in capitals',
    withDevices(
      { ...DRIVE, variable: 'Pump' },
      { ...OTHER, variable: 'pump', controllerId: 'plc' },
    ),
    'S-VARIABLE-TWICE',
  ],
  [
    'a loan of the gateway',
    moved(DRIVE, { loan: { address: ip('172.22.40.1'), until: 1 } }),
    'S-LOAN-KEPT',
  ],
  [
    'a loan out of the pool',
    moved(DRIVE, { loan: { address: ip('172.22.40.205'), until: 1 } }),
    'S-LOAN-KEPT',
  ],
  ['one address twice in one realm, on independent modules', modular('realm'), 'S-ADDRESS-ON-BOTH'],
])('%s is told', (_what, plan, rule) => {
  expect(rules(plan)).toContain(rule);
});

test.each<[string, Plan, SnagRule]>([
  ['a panel that opens the connection itself', withDevices(panel), 'S-ROLE-NONE'],
  ['one address in two realms, on independent modules', modular('machine'), 'S-ADDRESS-ON-BOTH'],
  ['the wide network in which a home network is not', subnets('10.1.0.0/16'), 'S-SUBNET-HOME'],
])('%s is right', (_what, plan, rule) => {
  expect(rules(plan)).not.toContain(rule);
});
