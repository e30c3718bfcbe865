import { sentenceOf } from '@ipsonomo/language';
import type { Issue } from '@ipsonomo/core/net';
import { Notice } from './Notice';

/** Refusals as sentences, one under the other; nothing where there is none. */
export function Refusals({ issues }: { readonly issues: readonly Issue[] | undefined }) {
  return issues?.map((issue) => (
    <Notice key={issue.code + issue.where} tone="brick">
      {sentenceOf(issue)}
    </Notice>
  ));
}
