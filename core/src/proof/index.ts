export {
  plannedAssemblies,
  type AssemblyFound,
  type AssemblyRole,
  type PlannedAssembly,
} from './assemblies';
export { requiredChecks, speaksModbus, type CheckName } from './checks';
export {
  compareFound,
  identityText,
  isOtherRevision,
  type Found,
  type PlannedProof,
  type Said,
  type Service,
} from './compare-found';
export { DIFFERENCES, type DifferenceKind, type FoundDifference } from './differences';
export { differencesIn, passedIn, proofFacts } from './facts';
export { modulesText, type ModuleFound } from './modules';
export {
  foundKey,
  lastsUntil,
  plannedTexts,
  proofOutcome,
  type ProofKind,
  type ProofOutcome,
} from './outcome';
export { runChanges, type ProofResult, type RunChange } from './run-changes';
export { interfacesIn, scopeTitle, type ProofScope } from './scope';
export {
  ofOtherKind,
  settlementsOf,
  stayEdit,
  type Settlement,
  type SettlementKind,
} from './settle';
export type { ProofEnd, ProofState, Stranger } from './state';
