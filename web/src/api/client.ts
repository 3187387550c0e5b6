/** Every call of the server, by what it does. What it answers follows from its address. */
import { asItIs, del, get, post, put, soon } from './door';
import type {
  Asked,
  DayEvent,
  EyeStated,
  Job,
  JobState,
  JobsSought,
  Mark,
  MarkDepth,
  OwnEntry,
  OwnOperation,
  PartDrawn,
  PartPhoto,
  Photo,
  Question,
  RackEvent,
  RackItemFile,
  RackWanted,
  Schemas,
  Shop,
  SizeFile,
  Sought,
  Tapping,
  Trial,
} from './types';
import { shown } from '../units/shown.svelte';
import { writes } from './writes.svelte';

export { Problem } from './door';
export type * from './types';

const one = (id: number) => ({ params: { path: { job_id: id } } });

const run = (id: number) => ({ params: { path: { run_id: id } } });
const JSON_TYPE = 'application/json';
const BYTES = 'application/octet-stream';

export const api = {
  /** A page of the jobs: of a state, in which each of the words is found. */
  jobs: (sought: JobsSought = {}) => get('/api/jobs', { params: { query: sought } }),
  job: (id: number) => get('/api/jobs/{job_id}', one(id)),
  /** `was`: the number that a deleted job had; with it its photos come back too. */
  add: (job: Job, was?: number) => post('/api/jobs', { body: job, params: { query: { was } } }),
  /** Every job file of an archive, all or none. */
  addArchive: (archive: Blob) =>
    post('/api/jobs.zip', {
      ...asItIs(archive, BYTES),
    }),
  /** A job file as it was read from disk: the server says what is wrong with it. */
  addText: (text: string) =>
    post('/api/jobs', {
      ...asItIs(text, JSON_TYPE),
    }),
  change: (id: number, job: Job, revision: number, leaving = false) =>
    put('/api/jobs/{job_id}', {
      ...one(id),
      headers: { 'If-Match': `"${revision}"` },
      body: job,
      keepalive: leaving,
    }).finally(() => writes.done++),
  /** How far a job is; `after`: number of the state that was seen last. */
  setJobState: (id: number, state: JobState, after: number) =>
    put('/api/jobs/{job_id}/state', { ...one(id), body: { state, after } }).finally(() => writes.done++),
  remove: (id: number) => del('/api/jobs/{job_id}', one(id)).finally(() => writes.done++),
  duplicate: (id: number) => post('/api/jobs/{job_id}/duplicate', one(id)),
  plan: (job: Job) => post('/api/plan', { body: job }),
  card: (id: number, inch: boolean) =>
    get('/api/jobs/{job_id}/card', { params: { path: { job_id: id }, query: { inch } } }),
  choices: (job: Job) => post('/api/choices', { body: job }),
  advice: (job: Job, face: string) => post('/api/advice', { params: { query: { face } }, body: job }),
  whatIf: (job: Job, face: string, step: number) =>
    post('/api/whatif', { params: { query: { face, step } }, body: job }),
  why: (job: Job, face: string, step: number) => post('/api/why', { params: { query: { face, step } }, body: job }),
  goBack: (job: Job, mark: Mark) => post('/api/goback', { params: { query: mark }, body: job }),
  rack: () => get('/api/rack'),
  rackPage: (query: RackWanted) => get('/api/rack/page', { params: { query } }),
  item: (id: number) => get('/api/rack/{item_id}', { params: { path: { item_id: id } } }),
  things: () => get('/api/rack/things'),
  putOnRack: (items: Partial<RackItemFile>[]) => post('/api/rack', { body: { items: items as RackItemFile[] } }),
  changeItem: (id: number, item: RackItemFile, revision: number) =>
    put('/api/rack/{item_id}', {
      params: { path: { item_id: id } },
      headers: { 'If-Match': `"${revision}"` },
      body: item,
    }),
  noteItem: (id: number, event: Partial<RackEvent>) =>
    post('/api/rack/{item_id}/history', {
      params: { path: { item_id: id } },
      body: { events: [event as RackEvent] },
    }),
  removeItem: (id: number) => del('/api/rack/{item_id}', { params: { path: { item_id: id } } }),
  previewRack: (text: string) => post('/api/rack/preview', { body: { text } }),
  importRack: (text: string) => post('/api/rack/import', { body: { text } }),
  own: () => get('/api/own'),
  ownLikes: () => get('/api/own/likes'),
  addOwn: (entry: OwnEntry) => post('/api/own', { body: { entry } }),
  changeOwn: (id: string, entry: OwnEntry, revision: number) =>
    put('/api/own/{key}', { params: { path: { key: id } }, headers: { 'If-Match': `"${revision}"` }, body: { entry } }),
  removeOwn: (id: string) => del('/api/own/{key}', { params: { path: { key: id } } }),
  previewOwn: (text: string) => post('/api/own/preview', { body: { text } }),
  importOwn: (text: string, factors: boolean) => post('/api/own/import', { body: { text, factors } }),
  worthTrying: () => get('/api/trials/worth'),
  trialSet: (asked: Schemas['TrialAsked']) => post('/api/trials/set', { body: asked }),
  trialAnswer: (trial: Trial) => post('/api/trials/answer', { body: trial }),
  acceptTrial: (trial: Trial) => post('/api/trials', { body: trial }),
  readForTrial: (id: string, asked: Schemas['TrialReadingIn']) =>
    post('/api/trials/readings/{instrument_id}', { params: { path: { instrument_id: id } }, body: asked }),
  startBuying: (by: 'minutes' | 'metal' | 'cost') => post('/api/buying', { params: { query: { by } } }),
  buying: (id: number) => get('/api/buying/{search_id}', { params: { path: { search_id: id } } }),
  stopBuying: (id: number) => del('/api/buying/{search_id}', { params: { path: { search_id: id } } }),
  worked: (id: number) => post('/api/jobs/{job_id}/worked', one(id)),
  setUps: (job: number[]) => get('/api/setups', { params: { query: { job } } }),
  begin: (job: number) => post('/api/jobs/{job_id}/runs', one(job)),
  runs: () => get('/api/runs'),
  /** Nothing when no event is newer than `after`. */
  run: (id: number, after?: number) =>
    get('/api/runs/{run_id}', {
      params: { path: { run_id: id }, query: { after } },
      cache: 'no-store',
      signal: soon(),
    }),
  ahead: (id: number) => get('/api/runs/{run_id}/ahead', run(id)),
  tap: (id: number, body: Tapping) =>
    post('/api/runs/{run_id}/taps', { ...run(id), body, signal: soon() }).finally(() => writes.done++),
  waysBack: (id: number, mark: MarkDepth) =>
    get('/api/runs/{run_id}/goback', { params: { path: { run_id: id }, query: mark } }),
  measuring: () => get('/api/measuring'),
  readInstrument: (id: number, instrument: string) =>
    get('/api/runs/{run_id}/readings/{instrument_id}', {
      params: { path: { run_id: id, instrument_id: instrument } },
    }),
  /** Two photos of the step in hand, the lamp along the new marks and across them. */
  eyeShows: (id: number, across_mm: number, pixels?: number) =>
    get('/api/runs/{run_id}/eye/shows', { params: { path: { run_id: id }, query: { across_mm, pixels } } }),
  eyeShowsAnywhere: (across_mm: number, before: string, pixels?: number) =>
    get('/api/eye/shows', { params: { query: { across_mm, before, pixels } } }),
  eyeLay: (across: Blob, across_mm: number) =>
    post('/api/eye/lay', { params: { query: { across_mm } }, ...asItIs(across, BYTES) }),
  askEye: (id: number, across: Blob, along: Blob, stated: EyeStated) =>
    post('/api/runs/{run_id}/eye', {
      params: { path: { run_id: id }, query: { ...stated, first_bytes: across.size } },
      ...asItIs(new Blob([across, along]), BYTES),
    }),
  eyeSaw: (id: number, look: number, crossing_deg: number) =>
    get('/api/runs/{run_id}/eye/{look}', {
      params: { path: { run_id: id, look }, query: { crossing_deg } },
      cache: 'no-store',
    }),
  askEyeAnywhere: (across: Blob, along: Blob, stated: EyeStated & { before: string }) =>
    post('/api/eye', {
      params: { query: { ...stated, first_bytes: across.size } },
      ...asItIs(new Blob([across, along]), BYTES),
    }),
  eyeSawAnywhere: (look: number, crossing_deg: number) =>
    get('/api/eye/{look}', { params: { path: { look }, query: { crossing_deg } }, cache: 'no-store' }),
  calibration: () => get('/api/log/calibration'),
  whoWasRight: () => get('/api/log/eye'),
  photos: (id: number) => get('/api/runs/{run_id}/photos', run(id)),
  addPhoto: (id: number, file: Blob, shows: Photo['shows'], across_mm?: number) =>
    post('/api/runs/{run_id}/photos', {
      params: { path: { run_id: id }, query: { shows, across_mm } },
      ...asItIs(file, file.type || 'application/octet-stream'),
    }),
  partPhotos: (id: number) => get('/api/jobs/{job_id}/photos', one(id)),
  addPartPhoto: (id: number, file: Blob, shows: PartPhoto['shows']) =>
    post('/api/jobs/{job_id}/photos', {
      params: { path: { job_id: id }, query: { shows } },
      ...asItIs(file, file.type || 'application/octet-stream'),
    }),
  drawOnPhoto: (id: number, body: PartDrawn) =>
    put('/api/part-photos/{photo_id}', { params: { path: { photo_id: id } }, body }),
  removePartPhoto: (id: number) => del('/api/part-photos/{photo_id}', { params: { path: { photo_id: id } } }),
  scalePhoto: (id: number, across_mm: number) =>
    put('/api/photos/{photo_id}/scale', { params: { path: { photo_id: id }, query: { across_mm } } }),
  log: (sought: Sought, offset = 0) => get('/api/log', { params: { query: { ...sought, offset } } }),
  /** A run file as it was read from disk. */
  bringRun: (text: string) =>
    post('/api/log', {
      ...asItIs(text, JSON_TYPE),
    }),
  runPage: (id: number) => get('/api/runs/{run_id}/page', run(id)),
  faults: () => get('/api/faults'),
  learning: () => get('/api/learning'),
  switchLearning: (body: Schemas['SwitchIn']) => put('/api/learning', { body }),
  houseWays: () => get('/api/house'),
  makeHouseWay: (id: number, face: string, name: string) =>
    post('/api/runs/{run_id}/house', { ...run(id), body: { face, name } }),
  forgetHouseWay: (id: number) => del('/api/house/{way_id}', { params: { path: { way_id: id } } }),
  houseOffers: (job: Job) => post('/api/house/offers', { body: job }),
  upkeep: () => get('/api/upkeep'),
  careDone: (thing: string, care: string) => post('/api/upkeep', { body: { thing, care } }),
  lightStrip: (job: Job, face: string) => post('/api/light/strip', { params: { query: { face } }, body: job }),
  lightAtBench: (id: number) => get('/api/runs/{run_id}/light', run(id)),
  measure: (file: Blob, units: { x_unit: 'mm' | 'um'; z_unit: 'mm' | 'um' }, form: number) =>
    post('/api/measure', {
      params: { query: { ...units, form } },
      ...asItIs(file, BYTES),
    }),
  practicePeople: () => get('/api/practice/people'),
  question: (person: string) => get('/api/practice/next', { params: { query: { person } }, cache: 'no-store' }),
  answer: (person: string, asked: Question, chosen: number) =>
    post('/api/practice/answer', {
      body: { person, kind: asked.kind, difficulty: asked.difficulty, seed: asked.seed, chosen },
    }),
  progress: (person: string) => get('/api/practice/progress', { params: { query: { person } } }),
  lightPatch: (asked: Partial<Asked>) => post('/api/light/patch', { body: asked as Asked }),
  lightHeights: (key: string) =>
    get('/api/light/{key}.bin', { params: { path: { key } }, parseAs: 'arrayBuffer' }).then(
      (told) => new Float32Array(told),
    ),
  lightWords: (key: string) => get('/api/light/{key}/words', { params: { path: { key } } }).then((told) => told.words),
  /** The parts that were changed last, with these words in their titles; `limit`: how many of them. */
  sizings: (limit?: number, words?: string) => get('/api/sizes', { params: { query: { limit, words } } }),
  sizing: (id: number) => get('/api/sizes/{sizing_id}', { params: { path: { sizing_id: id } } }),
  addSizing: (body: SizeFile) => post('/api/sizes', { body }),
  changeSizing: (id: number, body: SizeFile, revision: number) =>
    put('/api/sizes/{sizing_id}', {
      params: { path: { sizing_id: id } },
      headers: { 'If-Match': `"${revision}"` },
      body,
    }).finally(() => writes.done++),
  removeSizing: (id: number) => del('/api/sizes/{sizing_id}', { params: { path: { sizing_id: id } } }),
  practiceBore: (difficulty: number, seed: number) =>
    get('/api/gauge/practice', { params: { query: { difficulty, seed } } }),
  readPracticeBore: (difficulty: number, seed: number, worked_s: number[], widest_deg: number | null) =>
    post('/api/gauge/practice/read', {
      params: { query: { difficulty, seed } },
      body: { worked_s, widest_deg },
    }),
  endPracticeBore: (difficulty: number, seed: number, worked_s: number[]) =>
    post('/api/gauge/practice/end', { params: { query: { difficulty, seed } }, body: { worked_s } }),
  laps: (query: { kind: 'bore' | 'shaft'; tightest_mm: number; target_mm: number; length_mm: number; grade: string }) =>
    get('/api/laps', { params: { query } }),
  fitPair: (body: Schemas['PairFile']) => post('/api/pair', { body }),
  drawnSize: (text: string) => post('/api/size/drawn', { body: { text, system: shown.system } }),
  answerSize: (body: SizeFile) => post('/api/size', { body }),
  day: () => get('/api/day', { cache: 'no-store' }),
  searchDay: (seconds: number) => post('/api/day/search', { params: { query: { seconds } } }),
  stopSearch: () => del('/api/day/search'),
  pinBlock: (block: string, body: Schemas['PinIn']) =>
    put('/api/day/pins/{block}', { params: { path: { block } }, body }),
  unpinBlock: (block: string) => del('/api/day/pins/{block}', { params: { path: { block } } }),
  blockDone: (block: string) => post('/api/day/done/{block}', { params: { path: { block } } }),
  tryEvent: (event: DayEvent) => post('/api/day/try', { body: event }),
  happened: (event: DayEvent) => post('/api/day/events', { body: event }),
  forgetEvent: (number: number) => del('/api/day/events/{number}', { params: { path: { number } } }),
  whyLate: (job_id: number) => get('/api/day/late/{job_id}', { params: { path: { job_id } } }),
  ifFirst: (block: string) => get('/api/day/first/{block}', { params: { path: { block } } }),
  health: () => get('/api/health', { cache: 'no-store', signal: soon() }),
  thisScreen: () => get('/api/pairing'),
  pair: (code: string, name: string) => post('/api/pairing', { body: { code, name } }),
  unpair: () => del('/api/pairing'),
  devices: () => get('/api/devices', { cache: 'no-store' }),
  showCode: () => post('/api/devices/code'),
  hideCode: () => del('/api/devices/code'),
  takeOff: (id: number) => del('/api/devices/{device_id}', { params: { path: { device_id: id } } }),
  bringBackup: (file: Blob) =>
    post('/api/backups/brought', {
      ...asItIs(file, BYTES),
    }),
  forgetBackup: (name: string) => del('/api/backups/{name}', { params: { path: { name } } }),
  backups: () => get('/api/backups'),
  makeBackup: () => post('/api/backups'),
  backupChanges: (name: string) => get('/api/backups/{name}/changes', { params: { path: { name } } }),
  /** `sure`: also where less would be there afterwards. */
  restoreBackup: (name: string, sure: boolean) =>
    post('/api/backups/{name}/restore', { params: { path: { name }, query: { sure } } }),
  /** What the program still holds, after its file was replaced. */
  saveHeld: () => post('/api/backups/held'),
  lookAtDemo: () => put('/api/demo'),
  leaveDemo: () => del('/api/demo'),
  shop: () => get('/api/shop'),
  changeShop: (body: Shop) => put('/api/shop', { body }),
  quote: (id: number, pieces: number[], inch: boolean) =>
    get('/api/jobs/{job_id}/quote', { params: { path: { job_id: id }, query: { pieces, inch } } }),
  quotes: (id: number) => get('/api/jobs/{job_id}/quotes', { params: { path: { job_id: id } } }),
  keepQuote: (id: number, pieces: number[], inch: boolean) =>
    post('/api/jobs/{job_id}/quotes', { params: { path: { job_id: id }, query: { pieces, inch } } }),
  changeLogo: (picture: Blob) => put('/api/shop/logo', { ...asItIs(picture, picture.type || BYTES) }),
  removeLogo: () => del('/api/shop/logo'),
  templates: () => get('/api/templates'),
  keepTemplate: (name: string, operations: OwnOperation[]) =>
    put('/api/templates/{name}', { params: { path: { name } }, body: { operations } }),
  catalogue: () => get('/api/catalogue'),
  figures: () => get('/api/catalogue/figures'),
};
