import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { snagSentence } from '@ipsonomo/language';
import { planSchema, readPlanFile, type PlanFile } from '@ipsonomo/core/formats';
import {
  formatPrefix,
  readNetwork,
  type Issue,
  type Prefix,
  type Result,
  fail,
  ok,
} from '@ipsonomo/core/net';
import {
  diffDocs,
  isObject,
  lengthFor,
  needShape,
  planOf,
  splitBlock,
  type Edit,
  type Json,
  type Need,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import { openSnags, snagsOf, type Snag } from '@ipsonomo/core/snags';
import { readText, refuseInput, type Command, type Output } from './output';

// Plans and blocks from the command line.

/** A plan file with its name and papers; what is wrong with it is told. */
export function readPlanAt(path: string, output: Output): PlanFile | undefined {
  const text = readText(path);
  if (!text.ok) return void refuseInput(output, text.error);
  const file = readPlanFile(text.value);
  if (file.ok) return file.value;
  return void refuseAll(output, file.error);
}

export const readPlan = (path: string, output: Output): PlanDoc | undefined =>
  readPlanAt(path, output)?.doc;

const whereOf = ({ type, id, field }: Snag): string =>
  `${type} ${id}${field === undefined ? '' : `.${field}`}`;

/** Every snag that nobody has accepted; false where one is wrong. */
export const checkPlan: Command = (paths, output) => {
  let isGood = true;
  for (const path of paths) {
    const doc = readPlan(path, output);
    if (!doc) isGood = false;
    const plan = doc && planOf(doc);
    for (const snag of plan ? openSnags(plan, snagsOf(plan)) : []) {
      const { rule, severity } = snag;
      const file = paths.length > 1 ? { file: path } : {};
      output.print({ ...file, rule, severity, where: whereOf(snag), message: snagSentence(snag) });
      if (severity === 'wrong') isGood = false;
    }
  }
  return isGood;
};

/** A block split into its needs, then what is left over. */
export const split: Command = ([block = '', path = ''], output) => {
  const prefix = readNetwork(block);
  if (!prefix.ok) return refuseInput(output, prefix.error);
  const text = readText(path);
  if (!text.ok) return refuseInput(output, text.error);
  const needs = readNeeds(text.value);
  if (!needs.ok) return refuseAll(output, needs.error);
  const done = splitBlock(prefix.value, needs.value);
  if (!done.ok) return refuseAll(output, done.error);
  for (const { need, prefix: place } of done.value.placed)
    output.print({ name: need.name, network: formatPrefix(place) });
  for (const left of done.value.left) output.print({ left: formatPrefix(left) });
  for (const { need, largest } of done.value.unplaced)
    refuseInput(output, unplacedIssue(prefix.value, need, largest));
  return done.value.unplaced.length === 0;
};

function refuseAll(output: Output, issues: readonly Issue[]): false {
  for (const issue of issues) refuseInput(output, issue);
  return false;
}

function unplacedIssue(block: Prefix, need: Need, largest: number | undefined): Issue {
  return {
    code: 'split.full',
    where: need.name,
    facts: {
      block: formatPrefix(block),
      wanted: lengthFor(need, block) ?? 0,
      ...(largest === undefined ? {} : { largest }),
    },
  };
}

function readNeeds(text: string): Result<readonly Need[], readonly Issue[]> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    const why = (error as Error).message;
    return fail([{ code: 'file.json', where: COMMAND_WORDS.theNeeds, facts: { why } }]);
  }
  if (!Array.isArray(json) || !json.every(isObject))
    return fail([{ code: 'file.value', where: 'needs', facts: { misfit: 'list' } }]);
  const issues: Issue[] = [];
  const needs = (json as readonly Json[]).flatMap(
    (one, index) => needShape.read(one, `needs.${index}`, issues) ?? [],
  );
  return issues.length > 0 ? fail(issues) : ok(needs);
}

/** What makes the second plan of the first, one edit a line. */
export const diffPlans: Command = ([before = '', after = ''], output) => {
  const [first, second] = [readPlan(before, output), readPlan(after, output)];
  if (!first || !second) return false;
  for (const edit of diffDocs(first, second)) output.print(editLine(edit));
  return true;
};

function editLine(edit: Edit) {
  const { op, type } = edit;
  if (edit.op !== 'set') return { op, type, id: edit.thing.id, thing: edit.thing };
  return { op, type, id: edit.id, field: edit.field, from: edit.from, to: edit.to };
}

/** The JSON Schema of plan files. */
export const printSchema: Command = (_inputs, { print }) => {
  print(planSchema());
  return true;
};
