/** Folders of core in their order: each may import only those before it. */
const ORDER = [
  'units',
  'formula',
  'geometry',
  'terrain',
  'rain',
  'ground',
  'runoff',
  'hydraulics',
  'season',
  'contract',
  'works',
  'seen',
  'network',
  'checks',
  'survey',
  'project',
  'commands',
  'derive',
  'formats',
];

const downward = ORDER.map((folder, i) => ({
  name: `core-${folder}-imports-only-what-is-above-it`,
  severity: 'error',
  from: { path: `^core/${folder}/`, pathNot: '[.]test[.]ts$' },
  to: { path: `^core/(${[...ORDER.slice(i + 1), 'testing'].join('|')})/` },
}));

/** Rooms of core/derive, likewise. */
const ROOMS = ['graph', 'scenario', 'world', 'water', 'run', 'set', 'tell', 'ask'];

const throughRooms = ROOMS.map((room, i) => ({
  name: `derive-${room}-reads-only-rooms-before-it`,
  severity: 'error',
  from: { path: `^core/derive/${room}/`, pathNot: '[.]test[.]ts$' },
  to: {
    path: `^core/derive/(${[...ROOMS.slice(i + 1), 'derive[.]ts', 'index[.]ts'].join('|')})`,
    pathNot: room === 'ask' ? '^core/derive/derive[.]ts$' : '^$',
  },
}));

const TEST = '[.](test|e2e)[.]tsx?$';

/** Packages of types, which nothing is loaded from. */
const TYPES_ALONE = '^geojson$';

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    { name: 'everything-resolves', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: TYPES_ALONE } },
    ...downward,
    ...throughRooms,
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/', pathNot: TEST },
      to: { path: '^(web|server|cli|e2e)/|node_modules/(react|react-dom|express|ol|styled-components)/' },
    },
    { name: 'core-has-no-node', severity: 'error', from: { path: '^core/', pathNot: TEST }, to: { dependencyTypes: ['core'] } },
    {
      name: 'techniques-stand-alone',
      severity: 'error',
      // basin, gravity and field are no techniques: they are what techniques share.
      from: { path: '^core/works/([^/]+)/' },
      to: {
        path: '^core/works/[^/]+/',
        pathNot: [
          '^core/works/$1/',
          '^core/works/basin/',
          '^core/works/gravity/',
          '^core/works/field/',
          '^core/works/swale/[.][.]',
          '^core/works/level-sill/model[.]ts$',
        ],
      },
    },
    {
      name: 'entry-through-the-index',
      severity: 'error',
      from: { path: '^core/([^/]+)/', pathNot: [TEST, '^core/testing/'].flat() },
      to: {
        path: '^core/([^/]+)/.+',
        pathNot: ['^core/$1/', '^core/[^/]+/index[.]ts$', '^core/works/rules[.]ts$', '^core/project/guard[.]ts$'],
      },
    },
    {
      name: 'web-server-cli-never-meet',
      severity: 'error',
      from: { path: '^(web|server|cli)/' },
      to: { path: '^(web|server|cli)/', pathNot: '^$1/' },
    },
    {
      name: 'workers-without-classes',
      severity: 'error',
      from: { path: '^web/workers/', pathNot: TEST },
      to: { path: 'class-validator|core/project/guard', reachable: true },
    },
    { name: 'tests-are-leaves', severity: 'error', from: {}, to: { path: TEST } },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.json', '.css'],
    },
  },
};
