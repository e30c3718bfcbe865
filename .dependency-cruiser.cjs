// The import table: which room may import which. Everything not named here is forbidden.
const core = (room) => `^core/src/${room}(/|\\.ts$)`;
const server = (room) => `^server/src/${room}(/|\\.ts$)`;
const wire = (room) => `^wire/src/${room}(/|\\.ts$)`;
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: {
    path: '^(core|language|contract|threads|practice|wire|handover|server|app)/',
    pathNot: [from, ...allowed, '/node_modules/'],
  },
});

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    only('net', core('net'), []),
    only('clock', core('clock'), []),
    only('names', core('names'), [core('net')]),
    only('wire', core('wire'), [core('net')]),
    only('switches', core('switches'), [core('net')]),
    only('plan', core('plan'), [core('net'), core('names'), core('switches')]),
    only('snags', core('snags'), [core('net'), core('names'), core('switches'), core('plan')]),
    only('formats', core('formats'), [core('net'), core('names'), core('switches'), core('plan')]),
    only('sheet', core('sheet'), [core('net'), core('names'), core('plan')]),
    only('reshape', core('reshape'), [core('net'), core('names'), core('plan')]),
    only('round', core('round'), [core('net'), core('plan')]),
    only('codes', core('codes'), []),
    only('heard', core('heard'), [
      ...[core('net'), core('names'), core('wire'), core('plan'), core('answering'), core('known')],
    ]),
    only('known', core('known'), [core('net'), core('plan')]),
    only('written', core('written'), [core('net'), core('plan'), core('routes')]),
    only('find', core('find'), [core('net'), core('plan')]),
    only('routes', core('routes'), [core('net'), core('plan')]),
    only('describe', core('describe'), [core('net'), core('plan')]),
    only('host', core('host'), [core('net'), core('wire')]),
    only('answering', core('answering'), [core('net'), core('wire')]),
    only('proof', core('proof'), [core('net'), core('plan'), core('wire')]),
    only('causes', core('causes'), [core('net'), core('plan'), core('proof')]),
    only('entered', core('entered'), [core('net'), core('plan'), core('proof'), core('snags')]),
    only('picture', core('picture'), [core('net'), core('plan'), core('routes')]),
    only('vigil', core('vigil'), []),
    // What is told: it may look at all that is reasoned about.
    only('api', core('api'), ['^core/src/']),
    {
      name: 'core-is-pure',
      comment: 'core has no I/O, and of packages only the one that lays graphs out',
      severity: 'error',
      from: { path: '^core/src' },
      to: { pathNot: ['^core/src', '^node_modules/@dagrejs/dagre/'] },
    },
    {
      name: 'graphs-are-laid-out-in-the-picture',
      severity: 'error',
      from: { path: '^', pathNot: '^(core/src/picture/|node_modules/)' },
      to: { path: '^node_modules/@dagrejs/dagre/' },
    },
    {
      name: 'core-by-the-front-door',
      severity: 'error',
      from: { path: '^(language|contract|threads|practice|wire|handover|server|app)/' },
      to: { path: '^core/src/', pathNot: '^core/src/[^/]+/index\\.ts$' },
    },
    only('language', '^language/', ['^core/']),
    only('contract', '^contract/', ['^core/']),
    only('handover', '^handover/', ['^core/', '^language/']),
    only('threads', '^threads/', ['^core/']),
    only('practice', '^practice/', ['^core/']),
    only('protocol', wire('protocol'), ['^core/', wire('carriers/carrier')]),
    only('carriers', wire('carriers'), ['^core/', '^threads/', '^practice/', wire('protocol')]),
    only('kept', wire('kept'), ['^core/', wire('protocol')]),
    only('engine', wire('engine'), [
      ...['^core/', wire('protocol'), wire('carriers/carrier'), wire('kept')],
    ]),
    only('owner', wire('owner'), ['^core/', '^threads/', '^practice/', '^wire/']),
    only('the wire', '^wire/', ['^core/', '^threads/', '^practice/']),
    {
      name: 'wire-by-its-owner',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^wire/', pathNot: '^wire/src/owner/index\\.ts$' },
    },
    only('store', server('store'), ['^core/', '^threads/', server('common')]),
    only('common', server('common'), [
      '^core/',
      '^language/',
      '^threads/',
      server('store/refusal'),
    ]),
    only('lists', server('lists'), [
      ...['^core/', '^language/', '^threads/', server('common'), server('store/refusal')],
    ]),
    only('descriptions', server('descriptions'), [
      ...['^core/', '^language/', '^threads/', server('common'), server('store/refusal')],
    ]),
    only('packages', server('packages'), [
      ...['^core/', '^language/', '^handover/', '^threads/', server('common'), server('store')],
    ]),
    only('bundles', server('bundles'), [
      ...['^core/', server('common'), server('store'), server('packages/installation-key')],
    ]),
    only('tls', server('tls'), ['^core/', '^language/']),
    only('pages', server('pages'), [
      ...[
        '^core/',
        '^language/',
        '^contract/',
        '^wire/',
        server('store/refusal'),
        server('tls/encrypted'),
      ],
    ]),
    only('service', server('service'), [
      ...[
        '^core/',
        '^language/',
        '^handover/',
        '^threads/',
        '^wire/',
        server('common'),
        server('store'),
        server('lists'),
        server('bundles'),
      ],
      // A rehearsal's mistakes are known before its site is begun.
      ...[server('pages'), '^practice/src/index\\.ts$'],
    ]),
    only('http', server('http'), [
      ...[
        '^core/',
        '^language/',
        '^contract/',
        '^handover/',
        server('common'),
        server('store/refusal'),
        server('service'),
      ],
      ...['^wire/', server('pages'), server('descriptions'), server('packages')],
      server('store/store'),
    ]),
    only('cli', server('cli'), [
      ...[
        '^core/',
        '^language/',
        '^handover/',
        server('store'),
        server('descriptions'),
        server('opening'),
        server('common'),
      ],
      // A list is read and brought up to date as on the page.
      ...[server('lists'), server('service/list-answers')],
      // The mistakes that a seed makes are those of a rehearsal.
      '^practice/src/index\\.ts$',
    ]),
    only('server', '^server/', [
      ...['^core/', '^language/', '^contract/', '^handover/', '^threads/', '^wire/'],
      '^practice/src/index\\.ts$',
    ]),
    {
      name: 'practice-only-through-its-carrier',
      severity: 'error',
      from: { path: '^wire/', pathNot: '^wire/src/(carriers|owner)/practice' },
      to: { path: '^practice/' },
    },
    {
      name: 'sql-only-in-the-store',
      severity: 'error',
      from: { path: '^server/src', pathNot: '^server/src/(store/|main\\.ts$|seed\\.ts$)' },
      to: { path: 'node_modules/(knex|objection|pg)/' },
    },
    only('app', '^app/', ['^core/', '^language/', '^contract/']),
    only('theme', '^app/src/theme/', []),
    only('parts', '^app/src/parts/', ['^core/', '^language/', '^app/src/theme/']),
    only('data', '^app/src/data/', ['^core/', '^contract/', '^language/']),
    {
      name: 'feature-by-its-door',
      severity: 'error',
      from: { path: '^app/src/features/([^/]+)/' },
      to: {
        path: '^app/src/features/[^/]+/',
        pathNot: ['^app/src/features/$1/', '^app/src/features/[^/]+/index\\.ts$'],
      },
    },
    {
      name: 'features-do-not-fetch',
      comment: 'they ask by the door of data; what is pure of it can be had without',
      severity: 'error',
      from: { path: '^app/src/features/' },
      to: { path: '^app/src/data/', pathNot: '^app/src/data/(index|new-id)\\.ts$' },
    },
    {
      name: 'routes-lead-nowhere-else',
      comment: 'a route file shows a screen; nobody imports one',
      severity: 'error',
      from: { path: '^app/src/(features|parts|data|theme)/' },
      to: { path: '^app/src/app/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require'] },
  },
};
