import {
  isFile,
  PARAMS,
  paramsIn,
  WAITED_HEADERS,
  type AnyAct,
  type FileAnswer,
  type Right,
} from './act';
import { acts } from './acts';
import type { Schema } from './shape';

/** JSON. */
type Node = Readonly<Record<string, unknown>>;

/** Schemas of what is answered, by the names of `Views`, and of all that they refer to. */
export interface AnswerSchemas {
  readonly properties: Readonly<Record<string, Node>>;
  readonly schemas: Readonly<Record<string, Node>>;
}

const RIGHTS: Readonly<Record<Right, string>> = {
  door: 'Whoever stands before the door may ask.',
  look: 'To look.',
  plan: 'To change plans.',
  assign: 'To assign addresses.',
  send: 'To send on a wire.',
  keep: 'To keep the installation.',
};

/** The contract as an OpenAPI 3.1 document. */
export function openApiOf({ properties, schemas }: AnswerSchemas): Node {
  const paths: Record<string, Record<string, Node>> = {};
  for (const [name, act] of Object.entries(acts) as readonly [string, AnyAct][]) {
    const path = (act.path as string).replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[act.method.toLowerCase()] = operationOf(name, act, properties);
  }
  paths['/events'] = { get: STREAM };
  return {
    openapi: '3.1.0',
    info: {
      title: 'Ipsonomo',
      version: '1',
      description:
        'Everything the server can be asked. A program on the same machine asks through the Unix socket `.local/ipsonomo.sock`; a browser has a cookie, a program elsewhere a token (`Authorization: Bearer …`, made under Jobs → People). Text is UTF-8, times are milliseconds since 1970 by the server’s clock.',
    },
    servers: [{ url: '/api' }],
    components: {
      schemas,
      parameters: { Person: PERSON, ...WAITED },
      responses: { Refused: refused(properties) },
    },
    paths,
  };
}

const PERSON = {
  ...{ name: 'x-person', in: 'header', required: false },
  description: 'What whoever asks is called, percent-encoded UTF-8.',
  schema: { type: 'string' },
};

const waited = (name: string, description: string, schema: Node): Node => ({
  ...{ name, in: 'header', required: false, description, schema },
});
const COUNT: Node = { type: 'string', pattern: '^\\d{1,15}$' };

/** What goes along with an act that was kept for a while; with the first of them go the others. */
const WAITED: Readonly<Record<string, Node>> = {
  Key: waited(
    WAITED_HEADERS.key,
    'The act’s own number: however often it is sent, it is done once (draft-ietf-httpapi-idempotency-key-header).',
    { type: 'string', format: 'uuid' },
  ),
  DoneAt: waited(WAITED_HEADERS.doneAt, 'When it was done, in ms since 1970 by its clock.', COUNT),
  SentAt: waited(WAITED_HEADERS.sentAt, 'When it is sent, by the same clock.', COUNT),
  Account: waited(
    WAITED_HEADERS.account,
    'The account that did it; whoever else sends it is refused.',
    {
      type: 'string',
      format: 'uuid',
    },
  ),
  Place: waited(WAITED_HEADERS.place, 'Its place in the count of whoever kept it.', COUNT),
};
const WAITED_REFS: readonly Node[] = Object.keys(WAITED).map((name) => ({
  $ref: `#/components/parameters/${name}`,
}));

const STREAM = {
  operationId: 'events',
  summary: 'The stream of news (server-sent events): what a page shows, as it changes.',
  parameters: [
    {
      ...{ name: 'since', in: 'query', required: false, schema: { type: 'string' } },
      description: 'The number of the last news that is known: what was missed is told first.',
    },
  ],
  responses: {
    200: { description: 'News.', content: { 'text/event-stream': { schema: { type: 'string' } } } },
    default: { $ref: '#/components/responses/Refused' },
  },
};

const refused = (properties: AnswerSchemas['properties']): Node => ({
  description: 'What is wrong, where, and with which facts. Nothing was changed.',
  content: { 'application/json': { schema: properties['Error'] ?? {} } },
});

function operationOf(name: string, act: AnyAct, answers: AnswerSchemas['properties']): Node {
  return {
    operationId: name,
    summary: act.about,
    description: [RIGHTS[act.right], refusalsOf(act)].filter(Boolean).join(' '),
    'x-right': act.right,
    'x-refusals': act.refusals,
    parameters: [
      ...pathParameters(act),
      ...queryParameters(act.query),
      { $ref: '#/components/parameters/Person' },
      ...(act.mayWait ? WAITED_REFS : []),
    ],
    ...(act.body ? { requestBody: bodyOf(act.body) } : {}),
    responses: {
      [act.status]: answerOf(act, answers),
      default: { $ref: '#/components/responses/Refused' },
    },
  };
}

const refusalsOf = ({ refusals }: AnyAct): string =>
  refusals.length === 0 ? '' : `May be refused with: ${refusals.join(', ')}.`;

const pathParameters = (act: AnyAct): readonly Node[] =>
  paramsIn(act).map((name) => ({
    ...{ name, in: 'path', required: true },
    schema: PARAMS[name],
  }));

const queryParameters = (query: Schema | undefined): readonly Node[] =>
  Object.entries(query?.properties ?? {}).map(([name, schema]) => ({
    ...{ name, in: 'query', required: query?.required?.includes(name) ?? false, schema },
  }));

const bodyOf = (body: Schema): Node =>
  isFile(body)
    ? { required: true, content: { [body.file]: { schema: {} } } }
    : {
        // Where everything may be left out, so may the body.
        required: (body.required?.length ?? 0) > 0 || body.anyOf !== undefined,
        content: { 'application/json': { schema: body } },
      };

function answerOf(act: AnyAct, answers: AnswerSchemas['properties']): Node {
  if (act.answer === undefined) return { description: 'It is done, or under way.' };
  if (typeof act.answer !== 'string') {
    const { file } = act.answer as FileAnswer;
    return { description: 'A file.', content: { [file]: { schema: {} } } };
  }
  const schema = answers[act.answer] ?? {};
  return { description: 'As it stands then.', content: { 'application/json': { schema } } };
}
