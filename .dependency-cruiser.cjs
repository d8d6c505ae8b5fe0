/** The rooms and the one way in which imports run; see docs/architecture.md. */
const core = (room) => `^src/core/${room}/`;
/** Tests may reach for whatever shows the property. */
const tests = '(\\.test\\.tsx?$|/testing/)';
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: tests },
  to: { path: '^(app|src|cli|demo)/', pathNot: allowed },
});

/** Within a room that is divided: which of its divisions each one may import, besides itself. */
const divided = (room, divisions) =>
  Object.entries(divisions).map(([from, to]) => ({
    name: `${room}/${from}`,
    severity: 'error',
    from: { path: `^src/${room}/${from}/`, pathNot: tests },
    to: { path: `^src/${room}/[^/]+/`, pathNot: [from, ...to].map((t) => `^src/${room}/${t}/`) },
  }));

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'resolves', severity: 'error', from: {}, to: { couldNotResolve: true } },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: tests },
      to: { path: 'node_modules/(react|react-dom|next|dexie|comlink|zustand|radix-ui)/' },
    },
    {
      name: 'session-without-react',
      severity: 'error',
      from: { path: '^src/(loading|session|store|workers|commands)/' },
      to: { path: 'node_modules/(react|react-dom|next)/' },
    },
    only('values', core('values'), [core('values')]),
    only('circuit', core('circuit'), ['values', 'circuit'].map(core)),
    only('parts', core('parts'), ['values', 'circuit', 'parts'].map(core)),
    only('netlist', core('netlist'), ['values', 'circuit', 'parts', 'netlist'].map(core)),
    only('likeness', core('likeness'), ['values', 'circuit', 'parts', 'netlist', 'likeness'].map(core)),
    only('simulate', core('simulate'), ['values', 'circuit', 'parts', 'netlist', 'simulate'].map(core)),
    only('logic', core('logic'), ['values', 'circuit', 'parts', 'netlist', 'simulate', 'logic'].map(core)),
    only(
      'timing',
      core('timing'),
      ['values', 'circuit', 'parts', 'netlist', 'simulate', 'logic', 'timing'].map(core),
    ),
    only(
      'states',
      core('states'),
      ['values', 'circuit', 'parts', 'netlist', 'simulate', 'logic', 'states'].map(core),
    ),
    only(
      'packages',
      core('packages'),
      ['values', 'circuit', 'parts', 'netlist', 'simulate', 'logic', 'packages'].map(core),
    ),
    only(
      'bench',
      core('bench'),
      ['values', 'circuit', 'parts', 'netlist', 'simulate', 'logic', 'packages', 'bench'].map(core),
    ),
    only('drawing', core('drawing'), ['values', 'circuit', 'parts', 'netlist', 'drawing'].map(core)),
    only('figure', core('figure'), ['values', 'circuit', 'parts', 'netlist', 'drawing', 'figure'].map(core)),
    only(
      'synthesis',
      core('synthesis'),
      ['values', 'circuit', 'parts', 'netlist', 'simulate', 'logic', 'timing', 'drawing', 'synthesis'].map(
        core,
      ),
    ),
    only(
      'exercise',
      core('exercise'),
      [
        'values',
        'sealing',
        'circuit',
        'parts',
        'netlist',
        'likeness',
        'simulate',
        'logic',
        'timing',
        'packages',
        'bench',
        'exercise',
      ].map(core),
    ),
    only(
      'paper',
      core('paper'),
      ['values', 'circuit', 'parts', 'logic', 'packages', 'exercise', 'figure', 'paper'].map(core),
    ),
    only('sealing', core('sealing'), ['values', 'sealing'].map(core)),
    only('core', '^src/core/', ['^src/core/']),
    ...divided('core/logic', {
      table: [],
      minimise: [],
      expression: ['table', 'minimise'],
      equivalence: ['table'],
      map: ['minimise'],
      specification: ['table', 'minimise', 'expression'],
    }),
    ...divided('core/drawing', {
      geometry: [],
      routing: ['geometry'],
      layout: ['geometry', 'routing'],
      editing: ['geometry', 'routing', 'layout'],
    }),
    {
      name: 'testing-only-in-tests',
      severity: 'error',
      from: { pathNot: tests },
      to: { path: '/testing/' },
    },
    only('loading', '^src/loading/', ['^src/loading/']),
    only('workers', '^src/workers/', ['^src/core/', '^src/loading/', '^src/workers/']),
    only('store', '^src/store/', ['^src/core/', '^src/loading/', '^src/store/', '^demo/']),
    only('session', '^src/session/', [
      '^src/core/',
      '^src/loading/',
      '^src/workers/',
      '^src/store/',
      '^src/session/',
    ]),
    only('commands', '^src/commands/', ['^src/core/', '^src/loading/', '^src/session/', '^src/commands/']),
    only('ui', '^src/ui/', [
      '^src/core/',
      '^src/loading/',
      '^src/workers/',
      '^src/store/',
      '^src/session/',
      '^src/commands/',
      '^src/ui/',
      '^demo/',
    ]),
    // No two rooms of the interface import each other: controls and the session below, the faces on them, pages on top.
    ...divided('ui', {
      controls: [],
      session: ['controls'],
      'formula-text': ['controls'],
      derived: ['session'],
      compare: ['controls', 'session'],
      palette: ['controls', 'session'],
      figure: ['controls'],
      drawing: ['controls', 'session', 'figure'],
      exercise: ['controls', 'session', 'compare', 'formula-text', 'map-board'],
      'map-board': ['controls'],
      faces: ['controls', 'session', 'derived', 'formula-text', 'map-board', 'figure'],
      lesson: ['controls', 'session', 'compare', 'palette', 'drawing', 'faces', 'figure', 'paper'],
      paper: ['controls', 'session', 'formula-text', 'exercise', 'drawing', 'figure'],
      marking: ['controls', 'session', 'exercise', 'lesson'],
      shelf: ['controls', 'session', 'drawing'],
      pages: ['controls', 'session', 'exercise', 'lesson', 'paper'],
    }),
    {
      name: 'faces-by-their-list',
      severity: 'error',
      from: { path: '^src/', pathNot: ['^src/ui/faces/', tests] },
      to: { path: '^src/ui/faces/', pathNot: '^src/ui/faces/(index|face)\\.ts$' },
    },
    ...divided('ui/faces', { formula: [], map: [], states: [], table: [], time: [] }),
    ...divided('ui/drawing', { canvas: [], gestures: ['canvas', 'popups'], popups: ['canvas'] }),
    only('cli', '^cli/', ['^src/core/', '^cli/', '^demo/']),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
};
