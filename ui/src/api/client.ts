import createClient from "openapi-fetch";
import { heard } from "../keep/away";
import type { components, paths } from "./generated";

type Schemas = components["schemas"];
export type Job = Schemas["Job-Output"];
export type Zone = Schemas["Zone-Output"];
export type Layer = Schemas["Layer-Output"];
export type Piece = Schemas["Piece-Output"];
export type Length = Schemas["Length-Output"];
export type Plan = Schemas["Plan"];
type LayerPlan = Schemas["LayerPlan"];
export type LeftOver = Schemas["LeftOver"];
export type Asked = Schemas["AskIn"];
export type Coverage = Schemas["Coverage"];
export type FormLine = Schemas["FormOut"];
export type Begin = Schemas["StartIn"];
export type Mix = Schemas["Mix"];
export type Part = Schemas["Part"];
export type JarDrawing = Schemas["Jar"];
export type Figure = Schemas["Figure"];
export type Finding = Schemas["Finding"];
export type DialLimit = Schemas["DialLimit"];
export type PieceGeometry = Schemas["Drawing"];
export type Catalogue = Schemas["CatalogueOut"];
export type Recipe = Schemas["Recipe-Output"];
export type PieceKind = Schemas["PieceKindOut"];
export type JobReply = Schemas["JobOut"];
export type JobLine = Schemas["JobLine"];
export type Jobs = Schemas["JobsOut"];
export type Aside = Schemas["AsideOut"];
export type Restored = Schemas["RestoredOut"];
export type Unread = Schemas["Unread"];
export type Settings = Schemas["Settings-Output"];
export type Component = Schemas["Component-Output"];
export type Amount = Component["amount"];
export type Sheet = Schemas["Sheet"];
export type PotWant = Schemas["SheetIn"]["want"];
export type Kit = Schemas["Kit-Output"];
export type KitMeasure = Kit["measures"][number];
export type KitAnswer = Schemas["KitAnswer"];
export type KitOption = Schemas["KitOption"];
export type Material = Catalogue["materials"][number];
export type Shelf = Schemas["ShelfOut"];
export type ShelfLine = Schemas["ShelfLine"];
export type BetterEntry = Schemas["BetterEntry"];
export type ShelfItem = ShelfLine["item"];
export type FileReply = Schemas["FileOut"];
export type PotPlan = Layer["pots"][number];
export type Tint = PotPlan["tints"][string][number];
export type Section = Schemas["Section"];
export type Finish = Schemas["Finish"];
export type Taken = Schemas["Taken"];
export type Edit = Schemas["EditIn"]["edit"];
export type Change = Extract<Edit, { edit: "stack" }>["changes"][number];
export type Saved = Schemas["SavedOut"];
export type JobChanged = Schemas["ChangesOut"];
export type LayerPot = LayerPlan["pots"][number];
export type Advice = Schemas["Advice"];
export type Procedure = Schemas["Procedure"];
export type BenchStep = Schemas["BenchStep"];
export type Operation = BenchStep["operation"];
export type MixSheet = Schemas["MixSheet"];
export type Batch = Schemas["Batch"];
export type WhatIf = Schemas["WhatIf"];
export type GlazePlan = Schemas["GlazePlan"];
export type Frozen = Schemas["FrozenOut"];
export type Remedy = Finding["remedies"][number];
export type Sanding = Layer["sandings"][number];
export type Days = Schemas["Days"];
export type DayOperation = Schemas["DayOperation"];
export type DaysReply = Schemas["DaysOut"];
export type DaysChosen = Schemas["Chosen-Output"];
export type DaysChoices = Schemas["ChosenOut"];
export type JobChosen = DaysChosen["jobs"][number];
export type Strip = Schemas["Strip"];
export type RoomNow = Schemas["RoomOut"];
export type Hurry = Schemas["Hurry"];
export type Noted = Schemas["EventIn"];
export type BenchReply = Schemas["BenchOut"];
export type BenchOp = Schemas["BenchOp"];
export type JarHere = Schemas["JarHereOut"];
export type Timer = Schemas["Timer"];
export type PotNow = Schemas["PotNowOut"];
export type Addition = Schemas["Addition"];
export type Rung = Schemas["LadderRung"];
export type ScaleNow = Schemas["ScaleOut"];
export type ByScale = Schemas["Believed"];
export type PotSummary = Schemas["PotSummary"];
export type PotLife = Schemas["PotLifeOut"];
export type JarLine = Schemas["JarOut"];
export type LessonLine = Schemas["LessonOut"];
export type FactorLine = Schemas["FactorOut"];
export type LearnedChoice = Schemas["Learning-Output"];
export type LogEvent = Schemas["Event"];
export type Act = NonNullable<Noted["act"]>;
export type Purse = Schemas["Purse-Output"];
export type PurseReply = Schemas["PurseOut"];
export type Buying = Schemas["ListOut"];
export type BuyingLine = Schemas["ListLine"];
export type Lot = Schemas["Lot-Output"];
export type LotLine = Schemas["LotOut"];
export type Cost = Schemas["Cost"];
export type FinishCost = Schemas["FinishCost"];
export type PlanPattern = Schemas["Patterned"];
export type LayoutReply = Schemas["LayoutOut"];
export type FaceLayout = Schemas["FaceLaid"];
export type Layout = NonNullable<Layer["layout"]>;
export type WorkshopMode = Schemas["WorkshopOut"];
export type DeviceLine = Schemas["DeviceOut"];
export type OneCode = Schemas["CodeOut"];
export type CopyLine = Schemas["CopyOut"];
export type Door = Schemas["DoorOut"];
export type Problem = Schemas["ProblemOut"];

export const api = createClient<paths>({ baseUrl: "/" });

/** Said on the page when the server asks who comes. */
export const ASKED = "lumso:asked";

/** Whether a reply asks who comes; then the page is told so. */
export function asks(response: Response): boolean {
  if (response.status === 401) window.dispatchEvent(new Event(ASKED));
  return response.status === 401;
}

api.use({
  onResponse: ({ response }) => {
    asks(response);
    heard(response);
  },
});

/** What the server refused, in words meant for the person at the bench. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** No answer at all: the server is stopped or out of reach. */
export class NoAnswer extends Error {
  constructor() {
    super("Lumso is not answering. What you entered is kept here; it is saved as soon as it answers.");
  }
}

const SMALL = 60_000;

/** Whether a body is so small that a browser still sends it when its page is closed. */
export const lastsBeyondPage = (body: string | null): boolean => (body?.length ?? 0) < SMALL;

/** The revision that a reply says a document has. */
export const revisionOf = (response: Response) =>
  Number(response.headers.get("ETag")?.replaceAll('"', "") ?? 0);

/** What a call comes to. */
export type Reply<T> = Promise<{ data?: T; error?: unknown; response: Response }>;

/** The data of a reply, or Refused, or NoAnswer. */
export async function answer<T>(reply: Reply<T>): Promise<T> {
  const got = await reply.catch(() => {
    throw new NoAnswer();
  });
  if (got.error !== undefined || !got.response.ok) throw new Refused(got.error as Problem);
  return got.data as T;
}
