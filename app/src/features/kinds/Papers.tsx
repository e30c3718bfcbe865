import { Button } from '@rneui/themed';
import { Pressable, View } from 'react-native';
import type { Kind, Paper, PlanDoc } from '@ipsonomo/core/plan';
import { acts, chooseFile, paperPath, useAct, useEdit } from '../../data';
import { Refusals, Words } from '../../parts';
import { TOUCH } from '../../theme';
import { issuesOf, sizeWords } from '../words';
import { editsOfPapers, paperKindOf, withPaper } from './kind-edits';

/** The papers of a kind, each opened by a touch: there is no internet at the cabinet. */
export function PaperList({ job, papers, onTake }: ListProps) {
  return (
    <View>
      {papers.map((paper) => (
        <View key={paper.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Pressable
            {...opensBeside(paperPath(job, paper))}
            accessibilityLabel={`Open ${paper.name}`}
            style={{ minHeight: TOUCH, justifyContent: 'center', flex: 1 }}
          >
            <Words size="strong" tone="plum" lines={1}>
              {paper.name}
            </Words>
            <Words size="caption" tone="second">
              {PAPER_WORDS[paper.what]}, {sizeWords(paper.bytes)}
            </Words>
          </Pressable>
          {onTake ? (
            <Button
              type="clear"
              title="Take away"
              accessibilityLabel={`Take ${paper.name} away`}
              onPress={() => onTake(paper)}
            />
          ) : null}
        </View>
      ))}
    </View>
  );
}

/** A link of the browser's own, to a file beside this page; React Native's types know none. */
const opensBeside = (href: string): object => ({
  href,
  hrefAttrs: { target: '_blank', rel: 'noreferrer' },
});

interface ListProps {
  readonly job: string;
  readonly papers: readonly Paper[];
  readonly onTake?: (paper: Paper) => void;
}

const PAPER_WORDS: Readonly<Record<Paper['what'], string>> = {
  description: 'description file',
  manual: 'manual',
  drawing: 'drawing',
  other: 'paper',
};

interface Props {
  readonly id: string;
  readonly doc: PlanDoc;
  readonly kind: Kind;
}

/** Papers of a kind, with what adds one and takes one away. */
export function KindPapers({ id, doc, kind }: Props) {
  const edit = useEdit(id);
  const keep = useAct(acts.keepPaper, { job: id });
  const write = (papers: readonly Paper[], why: string) =>
    edit.mutate({ edits: editsOfPapers(doc, kind, papers), why });
  const attach = async () => {
    const file = await chooseFile('.pdf,.eds,.xml,.png,.jpg,.txt');
    if (!file) return;
    keep.mutate(file, {
      onSuccess: (paper) =>
        write(
          withPaper(kind.papers, paper, file.name, paperKindOf(file.name)),
          `attached ${file.name} to ${kind.name}`,
        ),
    });
  };
  return (
    <View style={{ gap: 8 }}>
      <PaperList
        job={id}
        papers={kind.papers}
        onTake={(paper) =>
          write(
            kind.papers.filter((one) => one !== paper),
            `took ${paper.name} from ${kind.name}`,
          )
        }
      />
      <Refusals issues={issuesOf(keep.error ?? edit.error)} />
      <Button
        type="outline"
        title="Attach a manual or another paper"
        loading={keep.isPending || edit.isPending}
        onPress={() => void attach()}
      />
    </View>
  );
}
