/** The names of what the server takes and answers, from its own description (`make types`). */
import type { components, paths } from './schema';

/** What an address may be asked for, by its description. */
type QueryOf<P extends keyof paths> = paths[P] extends { get: { parameters: { query?: infer Query } } }
  ? NonNullable<Query>
  : never;

export type Schemas = components['schemas'];
export type Job = Schemas['JobFile'];
export type Face = Schemas['FaceFile'];
export type Found = Schemas['FoundFile'];
export type Spots = Schemas['SpotsFile'];
export type Want = Schemas['WantFile'];
export type Shape = Schemas['ShapeFile'];
export type Edge = Schemas['EdgeFile'];
export type Card = Schemas['CardFile'];
export type CardOperation = Schemas['CardOperation'];
export type Plan = Schemas['PlanFile'];
export type FacePlan = Schemas['FacePlanFile'];
export type Choices = Schemas['ChoicesFile'];
export type Choice = Schemas['ChoiceFile'];
export type Way = Schemas['WayFile'];
export type Wish = Schemas['WishFile'];
export type Advice = Schemas['AdviceFile'];
export type FrontRoute = Schemas['FrontRoute'];
export type WhatIf = Schemas['WhatIfFile'];
export type Operation = Schemas['OperationFile'];
export type Drawing = Schemas['DrawingFile'];
export type RackItem = Schemas['ItemOut'];
export type RackPage = Schemas['RackPageOut'];
export type RackItemFile = Schemas['ItemFile'];
export type RackEvent = Schemas['ItemEventFile'];
export type Stockable = Schemas['Stockable'];
export type RackChange = Schemas['ChangeOut'];
export type BuyingSearch = Schemas['SearchOut'];
export type Preparation = Schemas['PreparationOut'];
export type Sum = Schemas['SumFile'];
export type GoBack = Schemas['GoBackFile'];
export type Step = Schemas['StepFile'];
export type KeptJob = Schemas['KeptJob'];
export type JobSummary = Schemas['JobSummaryOut'];
export type JobPage = Schemas['JobPageOut'];
export type Catalogue = Schemas['Catalogue'];
export type Figures = Schemas['FiguresFile'];
export type Sentence = Schemas['SentenceFile'];
export type Fault = Schemas['FaultOut'];
export type Run = Schemas['RunOut'];
export type Hand = Schemas['HandOut'];
export type Tap = Schemas['TapFile'];
export type Reading = Schemas['ReadingFile'];
export type Measuring = Schemas['MeasuringOut'];
export type Photo = Schemas['PhotoOut'];
export type PartPhoto = Schemas['PartPhotoOut'];
export type PartDrawn = Schemas['PartPhotoFile'];
export type EyeAnswer = Schemas['EyeAnswer'];
export type Calibration = Schemas['CalibrationOut'];
export type Agreement = Schemas['AgreementOut'];
export type ThisScreen = Schemas['ScreenOut'];
export type Devices = Schemas['DevicesOut'];
export type Backups = Schemas['BackupsOut'];
export type RestoreLook = Schemas['RestoreLookOut'];
export type Photos = Schemas['PhotosOut'];
export type Log = Schemas['LogOut'];
export type LogLine = Schemas['LogLineOut'];
export type RunPage = Schemas['RunPageOut'];
export type FaultOfWork = Schemas['FaultOfWork'];
export type Learning = Schemas['LearningOut'];
export type HouseWay = Schemas['KeptWay'];
export type HouseOffer = Schemas['HouseOfferFile'];
export type Due = Schemas['DueOut'];
export type Tile = Schemas['Tile'];
export type Asked = Schemas['Asked'];
export type Measured = Schemas['MeasureFile'] | Schemas['MeasureMapFile'];
export type Question = Schemas['QuestionOut'];
export type Right = Schemas['RightOut'];
export type Progress = Schemas['ProgressOut'];
export type SizeFile = Schemas['SizeFile'];
export type SizeReading = Schemas['SizeReading'];
export type SizeAnswer = Schemas['SizeAnswer'];
export type Place = Schemas['PlaceFile'];
export type Board = Schemas['BoardOut'];
export type Block = Schemas['BlockFile'];
export type Shop = Schemas['ShopFile'];
export type Quote = Schemas['QuoteFile'];
export type KeptQuote = Schemas['KeptQuote'];
export type OwnOperation = Schemas['OwnOperationFile'];
export type PairAnswer = Schemas['PairAnswer'];
export type KeptSizing = Schemas['KeptSizingOut'];
export type SizingPage = Schemas['SizingPageOut'];
export type JobState = Schemas['JobStateIn']['state'];
export type Health = Schemas['HealthOut'];
export type BoreEnd = Schemas['BoreEndFile'];
export type PatchShown = Schemas['PatchOut'];

/** How deep a mark is, said in one of three ways. */
export interface MarkDepth {
  depth_um?: number;
  like?: string;
  fingernail?: boolean;
}

/** A mark that is still there: on which face, after which step, and how deep. */
export interface Mark extends MarkDepth {
  face: string;
  after: number;
}

/** What the person says of two photos: how wide, how the new marks run (degrees, anticlockwise), how the old ones cross them. */
export interface EyeStated {
  across_mm: number;
  lay_deg: number;
  crossing_deg: number;
}

/** A tap on its way, with the number of the newest event that this screen had seen. */
export type Tapping = Schemas['TapIn'];

/** What is looked for among the jobs. */
export type JobsSought = QueryOf<'/api/jobs'>;
export type RackWanted = QueryOf<'/api/rack/page'>;

/** What is looked for in the log. */
export type Sought = Omit<QueryOf<'/api/log'>, 'offset' | 'limit'>;

/** Something that happens in a day, what it would do, and why a promise is late. */
export type DayEvent = Schemas['DayEventFile'];
export type DayEffect = Schemas['EffectFile'];
export type DayLate = Schemas['LateFile'];
export type OwnEntry = Schemas['OwnIn']['entry'];
export type KeptOwn = Schemas['OwnOut'];
export type OwnLikes = Schemas['LikesOut'];
export type Trial = Schemas['TrialFile'];
export type TrialSet = Schemas['TrialSet'];
export type TrialAnswer = Schemas['TrialAnswer'];
export type WorthTrying = Schemas['WorthOut'];
export type Pack = Schemas['PackOut'];
