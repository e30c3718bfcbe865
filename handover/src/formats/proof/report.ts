import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import {
  CHECK_KINDS,
  findKind,
  type Acceptance,
  type Evidence,
  type PlannedInterface,
} from '@ipsonomo/core/plan';
import {
  foundKey,
  plannedTexts,
  proofOutcome,
  requiredChecks,
  type FoundDifference,
  type ProofKind,
  type ProofOutcome,
} from '@ipsonomo/core/proof';
import { differenceWords, evidenceWords, snagSentence } from '@ipsonomo/language';
import type { Material } from '../../format';
import { hostNameOf } from '../../parts/host-names';

// What a proof says of every device: what was found, by which evidence, when, by whom, from where, and what was not
// looked at as plainly.

export interface ProofReport {
  readonly job: string;
  readonly revision: number;
  /** ISO 8601, UTC. */
  readonly at: string;
  readonly devices: readonly DeviceReport[];
  readonly counts: Readonly<Record<ProofKind, number>>;
  /** Of the plan, that nobody accepted. */
  readonly snags: readonly { readonly severity: string; readonly words: string }[];
  readonly accepted: readonly Pick<Acceptance, 'key' | 'reason' | 'person'>[];
}

export interface DeviceReport {
  readonly interface: string;
  readonly device: string;
  readonly name: string;
  readonly address: string;
  /** Empty while none is bound. */
  readonly mac: string;
  readonly stage: string;
  readonly outcome: ProofKind;
  /** The latest of each kind, the oldest first. */
  readonly evidence: readonly EvidenceReport[];
  readonly differences: readonly DifferenceReport[];
}

export interface EvidenceReport {
  readonly kind: string;
  readonly words: string;
  readonly at: string;
  /** Empty where nobody's hand was in it. */
  readonly person: string;
  /** The wire it was seen on, or `desk`. */
  readonly source: string;
}

export interface DifferenceReport {
  readonly words: string;
  readonly planned: string;
  readonly found: string;
  /** How it was settled; undefined while it is open. */
  readonly settled: { readonly reason: string; readonly person: string } | undefined;
}

const isCheck = (one: Evidence) => CHECK_KINDS.some((kind) => kind === one.kind);

export function proofReport(material: Material): ProofReport {
  const { job, revision, at, plan, chosen, snags } = material;
  const devices = chosen.map((one) => deviceReport(material, one));
  const count = (kind: ProofKind) => devices.filter(({ outcome }) => outcome === kind).length;
  return {
    ...{ job, revision, at: new Date(at).toISOString(), devices },
    counts: {
      ...{ proven: count('proven'), contradicted: count('contradicted') },
      ...{ accepted: count('accepted'), silent: count('silent'), stale: count('stale') },
      'not-asked': count('not-asked'),
    },
    snags: snags.map((snag) => ({ severity: snag.severity, words: snagSentence(snag) })),
    accepted: plan.acceptances.map(({ key, reason, person }) => ({ key, reason, person })),
  };
}

function deviceReport(material: Material, one: PlannedInterface): DeviceReport {
  const { plan, at: now } = material;
  const { device, at } = one;
  const seen = material.seen(at.id);
  const last = seen.all
    .filter(isCheck)
    .sort((a, b) => a.at - b.at)
    .at(-1);
  const required = requiredChecks(findKind(plan, device.kindId), device.way);
  const outcome = proofOutcome(at.id, required, last as Parameters<typeof proofOutcome>[2], {
    ...{ acceptances: plan.acceptances, planned: plannedTexts(plan, one), now },
  });
  return {
    ...{ interface: at.id, device: device.title, name: hostNameOf(one) },
    ...{ address: formatIpv4(at.address), mac: at.mac === undefined ? '' : formatMac(at.mac) },
    ...{ stage: seen.stage, outcome: outcome.kind },
    evidence: [...seen.all].sort((a, b) => a.at - b.at).map(evidenceReport),
    differences: differencesOf(outcome).map((difference) => ({
      ...{ words: differenceWords(difference), planned: difference.expected },
      ...{ found: difference.found, settled: settledBy(plan.acceptances, at.id, difference) },
    })),
  };
}

const evidenceReport = (one: Evidence): EvidenceReport => ({
  ...{ kind: one.kind, words: evidenceWords(one), at: new Date(one.at).toISOString() },
  ...{ person: one.person, source: one.source },
});

const differencesOf = (outcome: ProofOutcome): readonly FoundDifference[] =>
  outcome.kind === 'contradicted' || outcome.kind === 'accepted'
    ? [...outcome.differences, ...outcome.accepted]
    : [];

function settledBy(
  acceptances: readonly Acceptance[],
  interfaceId: string,
  difference: FoundDifference,
): DifferenceReport['settled'] {
  const found = acceptances.find(({ key }) => key === foundKey(interfaceId, difference));
  return found && { reason: found.reason, person: found.person };
}
