/** Every call of the server, by what it does. */
import { answered, asItIs, client, soon } from './door';
import type {
  Advice,
  Agreement,
  Asked,
  BackupChange,
  Backups,
  Board,
  BoreEnd,
  BuyingSearch,
  Catalogue,
  Choices,
  Devices,
  Due,
  EyeStated,
  FaultOfWork,
  Figures,
  GoBack,
  HouseOffer,
  HouseWay,
  Job,
  JobSummary,
  KeptJob,
  KeptQuote,
  KeptSizing,
  Learning,
  Log,
  Mark,
  MarkDepth,
  Measured,
  Measuring,
  OwnOperation,
  PairAnswer,
  PartDrawn,
  PartPhoto,
  PatchShown,
  Photo,
  Photos,
  Plan,
  Preparation,
  Progress,
  Question,
  Quote,
  RackChange,
  RackEvent,
  RackItem,
  RackItemFile,
  Reading,
  Right,
  Run,
  RunPage,
  Schemas,
  Sentence,
  Shop,
  SizeAnswer,
  SizeFile,
  SizeReading,
  Sought,
  Stockable,
  Sum,
  Tapping,
  ThisScreen,
  Tile,
  WhatIf,
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
  jobs: () => answered<JobSummary[]>(client.GET('/api/jobs')),
  job: (id: number) => answered<KeptJob>(client.GET('/api/jobs/{job_id}', one(id))),
  /** `was`: the number that a deleted job had; with it its photos come back too. */
  add: (job: Job, was?: number) =>
    answered<KeptJob>(client.POST('/api/jobs', { body: job, params: { query: { was } } })),
  /** Every job file of an archive, all or none. */
  addArchive: (archive: Blob) =>
    answered<KeptJob[]>(
      client.POST('/api/jobs.zip', {
        ...asItIs(archive, BYTES),
      }),
    ),
  /** A job file as it was read from disk: the server says what is wrong with it. */
  addText: (text: string) =>
    answered<KeptJob>(
      client.POST('/api/jobs', {
        ...asItIs(text, JSON_TYPE),
      }),
    ),
  change: (id: number, job: Job, revision: number, leaving = false) =>
    answered<KeptJob>(
      client.PUT('/api/jobs/{job_id}', {
        ...one(id),
        headers: { 'If-Match': `"${revision}"` },
        body: job,
        keepalive: leaving,
      }),
    ).finally(() => writes.done++),
  remove: (id: number) => answered<void>(client.DELETE('/api/jobs/{job_id}', one(id))).finally(() => writes.done++),
  duplicate: (id: number) => answered<KeptJob>(client.POST('/api/jobs/{job_id}/duplicate', one(id))),
  plan: (job: Job) => answered<Plan>(client.POST('/api/plan', { body: job })),
  keptPlan: (id: number) => answered<Plan>(client.GET('/api/jobs/{job_id}/plan', one(id))),
  choices: (job: Job) => answered<Choices>(client.POST('/api/choices', { body: job })),
  advice: (job: Job, face: string) =>
    answered<Advice>(client.POST('/api/advice', { params: { query: { face } }, body: job })),
  whatIf: (job: Job, face: string, step: number) =>
    answered<WhatIf[]>(client.POST('/api/whatif', { params: { query: { face, step } }, body: job })),
  why: (job: Job, face: string, step: number) =>
    answered<Sum[]>(client.POST('/api/why', { params: { query: { face, step } }, body: job })),
  goBack: (job: Job, mark: Mark) =>
    answered<GoBack>(client.POST('/api/goback', { params: { query: mark }, body: job })),
  rack: () => answered<RackItem[]>(client.GET('/api/rack')),
  things: () => answered<Stockable[]>(client.GET('/api/rack/things')),
  putOnRack: (items: Partial<RackItemFile>[]) =>
    answered<RackItem[]>(client.POST('/api/rack', { body: { items: items as RackItemFile[] } })),
  changeItem: (id: number, item: RackItemFile, revision: number) =>
    answered<RackItem>(
      client.PUT('/api/rack/{item_id}', {
        params: { path: { item_id: id } },
        headers: { 'If-Match': `"${revision}"` },
        body: item,
      }),
    ),
  noteItem: (id: number, event: Partial<RackEvent>) =>
    answered<RackItem>(
      client.POST('/api/rack/{item_id}/history', {
        params: { path: { item_id: id } },
        body: { events: [event as RackEvent] },
      }),
    ),
  removeItem: (id: number) =>
    answered<void>(client.DELETE('/api/rack/{item_id}', { params: { path: { item_id: id } } })),
  previewRack: (text: string) => answered<RackChange[]>(client.POST('/api/rack/preview', { body: { text } })),
  importRack: (text: string) => answered<RackChange[]>(client.POST('/api/rack/import', { body: { text } })),
  startBuying: (by: 'minutes' | 'metal' | 'cost') =>
    answered<BuyingSearch>(client.POST('/api/buying', { params: { query: { by } } })),
  buying: (id: number) =>
    answered<BuyingSearch>(client.GET('/api/buying/{search_id}', { params: { path: { search_id: id } } })),
  stopBuying: (id: number) =>
    answered<void>(client.DELETE('/api/buying/{search_id}', { params: { path: { search_id: id } } })),
  worked: (id: number) => answered<{ items: number }>(client.POST('/api/jobs/{job_id}/worked', one(id))),
  setUps: (job: number[]) => answered<Preparation>(client.GET('/api/setups', { params: { query: { job } } })),
  begin: (job: number) => answered<Run>(client.POST('/api/jobs/{job_id}/runs', one(job))),
  runs: () => answered<Run[]>(client.GET('/api/runs')),
  /** Nothing when no event is newer than `after`. */
  run: (id: number, after?: number) =>
    answered<Run | undefined>(
      client.GET('/api/runs/{run_id}', {
        params: { path: { run_id: id }, query: { after } },
        cache: 'no-store',
        signal: soon(),
      }),
    ),
  ahead: (id: number) => answered<Schemas['AheadOut']>(client.GET('/api/runs/{run_id}/ahead', run(id))),
  tap: (id: number, body: Tapping) =>
    answered<Run>(client.POST('/api/runs/{run_id}/taps', { ...run(id), body, signal: soon() })).finally(
      () => writes.done++,
    ),
  waysBack: (id: number, mark: MarkDepth) =>
    answered<GoBack>(client.GET('/api/runs/{run_id}/goback', { params: { path: { run_id: id }, query: mark } })),
  measuring: () => answered<Measuring>(client.GET('/api/measuring')),
  readInstrument: (id: number, instrument: string) =>
    answered<Reading>(
      client.GET('/api/runs/{run_id}/readings/{instrument_id}', {
        params: { path: { run_id: id, instrument_id: instrument } },
      }),
    ),
  /** Two photos of the step in hand, the lamp along the new marks and across them. */
  askEye: (id: number, along: Blob, across: Blob, stated: EyeStated) =>
    answered<{ look: number }>(
      client.POST('/api/runs/{run_id}/eye', {
        params: { path: { run_id: id }, query: { ...stated, first_bytes: along.size } },
        ...asItIs(new Blob([along, across]), BYTES),
      }),
    ),
  eyeSaw: (id: number, look: number, crossing_deg: number) =>
    answered<Schemas['LookOut']>(
      client.GET('/api/runs/{run_id}/eye/{look}', {
        params: { path: { run_id: id, look }, query: { crossing_deg } },
        cache: 'no-store',
      }),
    ),
  askEyeAnywhere: (along: Blob, across: Blob, stated: EyeStated & { before: string }) =>
    answered<{ look: number }>(
      client.POST('/api/eye', {
        params: { query: { ...stated, first_bytes: along.size } },
        ...asItIs(new Blob([along, across]), BYTES),
      }),
    ),
  eyeSawAnywhere: (look: number, crossing_deg: number) =>
    answered<Schemas['LookOut']>(
      client.GET('/api/eye/{look}', { params: { path: { look }, query: { crossing_deg } }, cache: 'no-store' }),
    ),
  gradesOfMarks: (photo: Blob, across_mm: number) =>
    answered<Schemas['MarksSeenOut']>(
      client.POST('/api/eye/marks', {
        params: { query: { across_mm } },
        ...asItIs(photo, photo.type || 'image/jpeg'),
      }),
    ),
  whoWasRight: () => answered<Agreement>(client.GET('/api/log/eye')),
  photos: (id: number) => answered<Photos>(client.GET('/api/runs/{run_id}/photos', run(id))),
  addPhoto: (id: number, file: Blob, shows: Photo['shows'], across_mm?: number) =>
    answered<Photo>(
      client.POST('/api/runs/{run_id}/photos', {
        params: { path: { run_id: id }, query: { shows, across_mm } },
        ...asItIs(file, file.type || 'application/octet-stream'),
      }),
    ),
  partPhotos: (id: number) => answered<PartPhoto[]>(client.GET('/api/jobs/{job_id}/photos', one(id))),
  addPartPhoto: (id: number, file: Blob, shows: PartPhoto['shows']) =>
    answered<PartPhoto>(
      client.POST('/api/jobs/{job_id}/photos', {
        params: { path: { job_id: id }, query: { shows } },
        ...asItIs(file, file.type || 'application/octet-stream'),
      }),
    ),
  drawOnPhoto: (id: number, body: PartDrawn) =>
    answered<PartPhoto>(client.PUT('/api/part-photos/{photo_id}', { params: { path: { photo_id: id } }, body })),
  removePartPhoto: (id: number) =>
    answered<void>(client.DELETE('/api/part-photos/{photo_id}', { params: { path: { photo_id: id } } })),
  scalePhoto: (id: number, across_mm: number) =>
    answered<void>(
      client.PUT('/api/photos/{photo_id}/scale', { params: { path: { photo_id: id }, query: { across_mm } } }),
    ),
  log: (sought: Sought, offset = 0) =>
    answered<Log>(client.GET('/api/log', { params: { query: { ...sought, offset } } })),
  /** A run file as it was read from disk. */
  bringRun: (text: string) =>
    answered<{ run_id: number }>(
      client.POST('/api/log', {
        ...asItIs(text, JSON_TYPE),
      }),
    ),
  runPage: (id: number) => answered<RunPage>(client.GET('/api/runs/{run_id}/page', run(id))),
  faults: () => answered<FaultOfWork[]>(client.GET('/api/faults')),
  learning: () => answered<Learning>(client.GET('/api/learning')),
  switchLearning: (body: Schemas['SwitchIn']) => answered<Learning>(client.PUT('/api/learning', { body })),
  houseWays: () => answered<HouseWay[]>(client.GET('/api/house')),
  makeHouseWay: (id: number, face: string, name: string) =>
    answered<HouseWay>(client.POST('/api/runs/{run_id}/house', { ...run(id), body: { face, name } })),
  forgetHouseWay: (id: number) =>
    answered<void>(client.DELETE('/api/house/{way_id}', { params: { path: { way_id: id } } })),
  houseOffers: (job: Job) => answered<HouseOffer[]>(client.POST('/api/house/offers', { body: job })),
  upkeep: () => answered<Due[]>(client.GET('/api/upkeep')),
  careDone: (thing: string, care: string) => answered<Due[]>(client.POST('/api/upkeep', { body: { thing, care } })),
  lightStrip: (job: Job, face: string) =>
    answered<Tile[]>(client.POST('/api/light/strip', { params: { query: { face } }, body: job })),
  lightAtBench: (id: number) => answered<Tile[]>(client.GET('/api/runs/{run_id}/light', run(id))),
  measure: (file: Blob, units: { x_unit: 'mm' | 'um'; z_unit: 'mm' | 'um' }, form: number) =>
    answered<Measured>(
      client.POST('/api/measure', {
        params: { query: { ...units, form } },
        ...asItIs(file, BYTES),
      }),
    ),
  practicePeople: () => answered<string[]>(client.GET('/api/practice/people')),
  question: (person: string) =>
    answered<Question>(client.GET('/api/practice/next', { params: { query: { person } }, cache: 'no-store' })),
  answer: (person: string, asked: Question, chosen: number) =>
    answered<Right>(
      client.POST('/api/practice/answer', {
        body: { person, kind: asked.kind, difficulty: asked.difficulty, seed: asked.seed, chosen },
      }),
    ),
  progress: (person: string) =>
    answered<Progress>(client.GET('/api/practice/progress', { params: { query: { person } } })),
  lightPatch: (asked: Partial<Asked>) =>
    answered<PatchShown>(client.POST('/api/light/patch', { body: asked as Asked })),
  lightHeights: (key: string) =>
    answered<ArrayBuffer>(
      client.GET('/api/light/{key}.bin', { params: { path: { key } }, parseAs: 'arrayBuffer' }),
    ).then((told) => new Float32Array(told)),
  lightWords: (key: string) =>
    answered<{ words: Sentence }>(client.GET('/api/light/{key}/words', { params: { path: { key } } })).then(
      (told) => told.words,
    ),
  sizings: () => answered<KeptSizing[]>(client.GET('/api/sizes')),
  sizing: (id: number) =>
    answered<KeptSizing>(client.GET('/api/sizes/{sizing_id}', { params: { path: { sizing_id: id } } })),
  addSizing: (body: SizeFile) => answered<KeptSizing>(client.POST('/api/sizes', { body })),
  changeSizing: (id: number, body: SizeFile, revision: number) =>
    answered<KeptSizing>(
      client.PUT('/api/sizes/{sizing_id}', {
        params: { path: { sizing_id: id } },
        headers: { 'If-Match': `"${revision}"` },
        body,
      }),
    ).finally(() => writes.done++),
  removeSizing: (id: number) =>
    answered<void>(client.DELETE('/api/sizes/{sizing_id}', { params: { path: { sizing_id: id } } })),
  practiceBore: (difficulty: number, seed: number) =>
    answered<SizeFile>(client.GET('/api/gauge/practice', { params: { query: { difficulty, seed } } })),
  readPracticeBore: (difficulty: number, seed: number, worked_s: number[], widest_deg: number | null) =>
    answered<SizeReading[]>(
      client.POST('/api/gauge/practice/read', {
        params: { query: { difficulty, seed } },
        body: { worked_s, widest_deg },
      }),
    ),
  endPracticeBore: (difficulty: number, seed: number, worked_s: number[]) =>
    answered<BoreEnd>(
      client.POST('/api/gauge/practice/end', { params: { query: { difficulty, seed } }, body: { worked_s } }),
    ),
  laps: (query: { kind: 'bore' | 'shaft'; tightest_mm: number; target_mm: number; length_mm: number; grade: string }) =>
    answered<Schemas['LapAtHandFile'][]>(client.GET('/api/laps', { params: { query } })),
  fitPair: (body: Schemas['PairFile']) => answered<PairAnswer>(client.POST('/api/pair', { body })),
  drawnSize: (text: string) =>
    answered<Schemas['SizeWanted']>(client.POST('/api/size/drawn', { body: { text, system: shown.system } })),
  answerSize: (body: SizeFile) => answered<SizeAnswer>(client.POST('/api/size', { body })),
  day: () => answered<Board>(client.GET('/api/day', { cache: 'no-store' })),
  searchDay: (seconds: number) => answered<Board>(client.POST('/api/day/search', { params: { query: { seconds } } })),
  stopSearch: () => answered<void>(client.DELETE('/api/day/search')),
  pinBlock: (task: number, body: Schemas['PinIn']) =>
    answered<Board>(client.PUT('/api/day/pins/{task}', { params: { path: { task } }, body })),
  unpinBlock: (task: number) => answered<Board>(client.DELETE('/api/day/pins/{task}', { params: { path: { task } } })),
  blockDone: (task: number) => answered<Board>(client.POST('/api/day/done/{task}', { params: { path: { task } } })),
  ifFirst: (task: number) =>
    answered<Schemas['WhyFirstOut']>(client.GET('/api/day/first/{task}', { params: { path: { task } } })),
  health: () => answered<Schemas['Health']>(client.GET('/api/health')),
  thisScreen: () => answered<ThisScreen>(client.GET('/api/pairing')),
  pair: (code: string, name: string) =>
    answered<Schemas['DeviceOut']>(client.POST('/api/pairing', { body: { code, name } })),
  unpair: () => answered<void>(client.DELETE('/api/pairing')),
  devices: () => answered<Devices>(client.GET('/api/devices', { cache: 'no-store' })),
  showCode: () => answered<Devices>(client.POST('/api/devices/code')),
  hideCode: () => answered<void>(client.DELETE('/api/devices/code')),
  takeOff: (id: number) =>
    answered<void>(client.DELETE('/api/devices/{device_id}', { params: { path: { device_id: id } } })),
  bringBackup: (file: Blob) =>
    answered<Schemas['BackupOut']>(
      client.POST('/api/backups/brought', {
        ...asItIs(file, BYTES),
      }),
    ),
  forgetBackup: (name: string) => answered<void>(client.DELETE('/api/backups/{name}', { params: { path: { name } } })),
  backups: () => answered<Backups>(client.GET('/api/backups')),
  makeBackup: () => answered<Schemas['BackupOut']>(client.POST('/api/backups')),
  backupChanges: (name: string) =>
    answered<BackupChange[]>(client.GET('/api/backups/{name}/changes', { params: { path: { name } } })),
  restoreBackup: (name: string) =>
    answered<Schemas['BackupOut']>(client.POST('/api/backups/{name}/restore', { params: { path: { name } } })),
  lookAtDemo: () => answered<void>(client.PUT('/api/demo')),
  leaveDemo: () => answered<void>(client.DELETE('/api/demo')),
  shop: () => answered<Shop>(client.GET('/api/shop')),
  changeShop: (body: Shop) => answered<Shop>(client.PUT('/api/shop', { body })),
  quote: (id: number, pieces: number[]) =>
    answered<Quote>(client.GET('/api/jobs/{job_id}/quote', { params: { path: { job_id: id }, query: { pieces } } })),
  quotes: (id: number) =>
    answered<KeptQuote[]>(client.GET('/api/jobs/{job_id}/quotes', { params: { path: { job_id: id } } })),
  keepQuote: (id: number, pieces: number[]) =>
    answered<KeptQuote>(
      client.POST('/api/jobs/{job_id}/quotes', { params: { path: { job_id: id }, query: { pieces } } }),
    ),
  templates: () => answered<Record<string, OwnOperation[]>>(client.GET('/api/templates')),
  keepTemplate: (name: string, operations: OwnOperation[]) =>
    answered<void>(client.PUT('/api/templates/{name}', { params: { path: { name } }, body: { operations } })),
  catalogue: () => answered<Catalogue>(client.GET('/api/catalogue')),
  figures: () => answered<Figures>(client.GET('/api/catalogue/figures')),
};
