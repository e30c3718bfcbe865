import { findSubnet, interfacesOf, type Plan, type PlannedInterface } from '../plan';

/** What a run is over. */
export type ProofScope =
  | { readonly kind: 'job' }
  | { readonly kind: 'subnet'; readonly subnetId: string }
  | { readonly kind: 'cabinet'; readonly cabinet: string }
  | { readonly kind: 'interface'; readonly interfaceId: string };

const isIn = ({ device, at }: PlannedInterface, scope: ProofScope): boolean => {
  switch (scope.kind) {
    case 'job':
      return true;
    case 'subnet':
      return at.subnetId === scope.subnetId;
    case 'cabinet':
      return device.cabinet === scope.cabinet;
    case 'interface':
      return at.id === scope.interfaceId;
  }
};

/** The planned interfaces of a run, in their order in the plan. */
export const interfacesIn = (plan: Plan, scope: ProofScope): readonly PlannedInterface[] =>
  interfacesOf(plan).filter((one) => isIn(one, scope));

/** What a run is over, as it is kept: "whole job", "subnet Filter hall", "cabinet FH2". */
export function scopeTitle(plan: Plan, scope: ProofScope): string {
  switch (scope.kind) {
    case 'job':
      return 'whole job';
    case 'subnet':
      return `subnet ${findSubnet(plan, scope.subnetId)?.name ?? ''}`;
    case 'cabinet':
      return `cabinet ${scope.cabinet}`;
    case 'interface':
      return interfacesIn(plan, scope)[0]?.device.title ?? '';
  }
}
