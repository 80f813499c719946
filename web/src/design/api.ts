// Calls to the server. An answer that is no success is thrown as a ProblemError with the server's problem details.
import type { UnitChoice } from "../ui/units";
import { browserId, personName } from "./person";
import type {
  BinItem,
  CatalogueView,
  Debrief,
  DrillDoing,
  DrillItem,
  DrillView,
  KillSheet,
  Scene,
  Change,
  ChainsResult,
  Comparison,
  Design,
  DesignItem,
  DesignView,
  DraftItem,
  DraftView,
  Evaluation,
  FormulaItem,
  GroundDrawing,
  IssueItem,
  JobDetail,
  Departure,
  FactTable,
  FeedSource,
  FeedView,
  Limits,
  LineChange,
  LiveSpan,
  PlannedNow,
  LogbookView,
  LogEntry,
  NewEntry,
  KickDrawing,
  LoadsResult,
  RunTracks,
  Mapping,
  Merged,
  Pasted,
  PathPlan,
  PipeOffers,
  PipeTable,
  Preview,
  Problem,
  Difference,
  ProgramsResult,
  RemediesTried,
  ReferenceData,
  RevisionList,
  Saved,
  SessionView,
  SheetDetail,
  Side,
  SignOff,
  SignatureItem,
  Station,
  Summary,
  Taken,
  TallyDetail,
  Target,
  Trial,
  UnitTable,
  Working,
} from "./types";

export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** Told to the window when the server knows no session: whoever shows the page asks to sign in again. */
export const SIGNED_OUT = "knollstack:signed-out";

async function answer<T>(response: Response): Promise<T> {
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  if (response.status === 401 && !response.url.includes("/api/session")) window.dispatchEvent(new Event(SIGNED_OUT));
  const body: unknown = await response.json().catch(() => null);
  if (body !== null && typeof body === "object" && "status" in body) throw new ProblemError(body as Problem);
  throw new ProblemError({
    type: "about:blank",
    title: response.statusText,
    status: response.status,
    detail: `The server answered ${response.status}.`,
    faults: [],
  });
}

/** Whose request it is, where the person has said so. */
function named(): Record<string, string> {
  const name = personName();
  return { "Knollstack-Browser": browserId(), ...(name === "" ? {} : { "Knollstack-Name": encodeURIComponent(name) }) };
}

async function send<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const headers: Record<string, string> = named();
  const init: RequestInit = { method, signal, headers };
  if (body !== undefined) {
    init.body = JSON.stringify(body);
    headers["Content-Type"] = "application/json";
  }
  return answer<T>(await fetch(`/api${path}`, init));
}

export const listDesigns = () => send<{ designs: DesignItem[] }>("GET", "/designs").then((r) => r.designs);
export const getDesign = (id: number) => send<DesignView>("GET", `/designs/${id}`);
export const createEmptyWell = () => send<Saved>("POST", "/wells/empty");
export const copyWell = (wellId: number) => send<Saved>("POST", `/wells/${wellId}/copies`);
export const workSummaries = (designs: number[]) =>
  send<{ summaries: Record<string, Summary> }>("POST", "/summaries", { designs }).then((r) => r.summaries);
export const deleteWell = (wellId: number) => send<undefined>("DELETE", `/wells/${wellId}`);
export const evaluate = (document: Design) => send<Evaluation>("POST", "/evaluations", { document });
export const findPrograms = (document: Design, signal?: AbortSignal) => send<ProgramsResult>("POST", "/programs", { document }, signal);
export const planPath = (plan: PathPlan) => send<{ stations: Station[]; total_md_ft: number }>("POST", "/paths", plan);
export const moveToWater = (document: Design, water_depth_ft: number) =>
  send<{ changes: Change[] }>("POST", "/water-depths", { document, water_depth_ft });
export const estimateFracture = (document: Design, method: string, poisson: number, matrix_stress_ratio: number) =>
  send<{ rows: Record<string, unknown>[] }>("POST", "/estimates/fracture", { document, method, poisson, matrix_stress_ratio });
export const getLoads = (document: Design, string: number, signal?: AbortSignal) =>
  send<LoadsResult>("POST", "/loads", { document, string }, signal);
export const getTally = (document: Design, string: number, signal?: AbortSignal) =>
  send<TallyDetail>("POST", "/tallies", { document, string }, signal);
export const getTracks = (document: Design, string: number, signal?: AbortSignal) =>
  send<RunTracks>("POST", "/runs", { document, string }, signal);
export const getCementJob = (document: Design, string: number, signal?: AbortSignal) =>
  send<JobDetail>("POST", "/cement-jobs", { document, string }, signal);
export const getRunSheet = (document: Design, signal?: AbortSignal) => send<SheetDetail>("POST", "/run-sheets", { document }, signal);
export const getSheetChanges = (id: number, document: Design, signal?: AbortSignal) =>
  send<{ lines: LineChange[] }>("POST", `/designs/${id}/sheet-changes`, { document }, signal).then((r) => r.lines);
export const listIssues = (id: number) => send<{ issues: IssueItem[] }>("GET", `/designs/${id}/sheet-issues`).then((r) => r.issues);
export const issueSheet = (id: number, revision: number, note: string) =>
  send<{ issues: IssueItem[] }>("POST", `/designs/${id}/sheet-issues`, { revision, note }).then((r) => r.issues);
export const writeLog = (id: number, entries: readonly NewEntry[]) =>
  send<{ entries: LogEntry[] }>("POST", `/designs/${id}/log`, { entries }).then((r) => r.entries);
export const getLog = (id: number) => send<{ entries: LogEntry[] }>("GET", `/designs/${id}/log`).then((r) => r.entries);
export const getFactTables = (document: Design, signal?: AbortSignal) =>
  send<{ tables: FactTable[] }>("POST", "/fact-tables", { document }, signal).then((r) => r.tables);
export const getLogbook = (document: Design, signal?: AbortSignal) => send<LogbookView>("POST", "/logbooks", { document }, signal);
export const getFeed = (id: number) => send<FeedView>("GET", `/designs/${id}/feed`);
export const putFeed = (id: number, source: FeedSource, on: boolean) => send<FeedView>("PUT", `/designs/${id}/feed`, { source, on });
export const startRig = (id: number, rig: { speed: number; from_md_ft: number; seed: number; troubles: string[] }) =>
  send<FeedView>("POST", `/designs/${id}/simulated-rig`, rig);
export const stopRig = (id: number) => send<FeedView>("DELETE", `/designs/${id}/simulated-rig`);
export const getFeedSpans = (id: number) => send<{ spans: LiveSpan[] }>("GET", `/designs/${id}/feed/spans`).then((r) => r.spans);
export const readTestPoints = (id: number, begins: string, ends: string) =>
  send<{ points: { volume_bbl: number; pressure_psi: number }[] }>(
    "GET",
    `/designs/${id}/feed/points?begins=${encodeURIComponent(begins)}&ends=${encodeURIComponent(ends)}`,
  ).then((r) => r.points);
export const tellDepartures = (planned: PlannedNow, spans: readonly LiveSpan[], limits: Limits, signal?: AbortSignal) =>
  send<{ departures: Departure[] }>("POST", "/departures", { planned, spans, limits }, signal).then((r) => r.departures);
export const beginDrill = (id: number, document: Design, scene: Scene) =>
  send<DrillView>("POST", `/designs/${id}/drills`, { document, scene });
export const getDrill = (drill: number) => send<DrillView>("GET", `/drills/${drill}`);
export const playDrill = (drill: number, to_s: number, doings: readonly DrillDoing[]) =>
  send<DrillView>("POST", `/drills/${drill}/steps`, { to_s, doings });
export const endDrill = (drill: number, to_s: number) => send<Debrief>("POST", `/drills/${drill}/end`, { to_s });
export const getDebrief = (drill: number) => send<Debrief>("GET", `/drills/${drill}/debrief`);
export const listDrills = (id: number) => send<{ drills: DrillItem[] }>("GET", `/designs/${id}/drills`).then((r) => r.drills);
export const deleteDrill = (drill: number) => send<undefined>("DELETE", `/drills/${drill}`);
export const getKillSheet = (document: Design, asked: Record<string, unknown>, signal?: AbortSignal) =>
  send<KillSheet>("POST", "/kill-sheets", { document, ...asked }, signal);
export async function beginFromFile(id: number, file: File) {
  const init = { method: "POST", body: file, headers: { ...named(), "Content-Type": "application/octet-stream" } };
  return answer<DrillView>(await fetch(`/api/designs/${id}/drills/file`, init));
}
export async function takeFeedFile(id: number, file: File) {
  const init = { method: "POST", body: file, headers: { ...named(), "Content-Type": "application/octet-stream" } };
  return answer<{ readings: number; spans: number; bad_lines: number }>(await fetch(`/api/designs/${id}/feed/file`, init));
}
export const getOffers = (document: Design, string: number, signal?: AbortSignal) =>
  send<PipeOffers>("POST", "/pipe-offers", { document, string }, signal);
export const getChains = (document: Design, signal?: AbortSignal) => send<ChainsResult>("POST", "/chains", { document }, signal);
export const tellDifferences = (before: Design, after: Design) =>
  send<{ differences: Difference[] }>("POST", "/differences", { before, after }).then((r) => r.differences);
export const tryRemedies = (document: Design, signal?: AbortSignal) => send<RemediesTried>("POST", "/remedies", { document }, signal);
export const getWorking = (document: Design, key: string) => send<Working>("POST", "/workings", { document, key });
export const getReference = () => send<ReferenceData>("GET", "/reference");
export const drawGround = (document: Design) => send<GroundDrawing>("POST", "/drawings/ground", { document });
export const drawKick = (document: Design) =>
  send<{ strings: KickDrawing[] }>("POST", "/drawings/kick", { document }).then((r) => r.strings);
export const getUnits = () => send<{ quantities: UnitTable }>("GET", "/units").then((r) => r.quantities);
export const getPipes = (odIn: number) => send<PipeTable>("GET", `/catalogue/pipes?od_in=${odIn}`).then((r) => r.pipes);
export const getCatalogue = () => send<CatalogueView>("GET", "/catalogue");

interface DesignOfWell {
  id: number;
  wellId: number;
}
export const createWell = (document: Design) => send<Saved>("POST", "/wells", { document });
export const saveDesign = ({ id, wellId }: DesignOfWell, basedOn: number, document: Design, note = "") =>
  send<Saved>("PUT", `/designs/${id}`, { well_id: wellId, based_on: basedOn, document, note });
export const listDrafts = (id: number) => send<{ drafts: DraftItem[] }>("GET", `/designs/${id}/drafts`).then((r) => r.drafts);
export const getDraft = (id: number, draft: number) => send<DraftView>("GET", `/designs/${id}/drafts/${draft}`);
export const renewDraft = ({ id, wellId }: DesignOfWell, draft: number, basedOn: number, document: Design) =>
  send<{ draft_id: number }>("PUT", `/designs/${id}/drafts/${draft}`, { well_id: wellId, based_on: basedOn, document });
export const dropDraft = (id: number, draft: number) => send<undefined>("DELETE", `/designs/${id}/drafts/${draft}`);
export const mergeWith = (id: number, basedOn: number, theirs: number, document: Design, choices: Record<string, Side>) =>
  send<Merged>("POST", `/designs/${id}/merges`, { based_on: basedOn, theirs, document, choices });
export const getSession = () => send<SessionView>("GET", "/session");
export const signIn = (name: string, password: string) => send<SessionView>("POST", "/session", { name, password });
export const signOut = () => send<undefined>("DELETE", "/session");
export const changePassword = (old: string, next: string) => send<undefined>("PUT", "/session/password", { old, new: next });
export const getSignOff = (id: number) => send<SignOff>("GET", `/designs/${id}/sign-off`);
export const sign = (id: number, { revision, document_hash }: SignOff, kind: SignatureItem["kind"], note: string) =>
  send<SignOff>("POST", `/designs/${id}/sign-off`, { revision, document_hash, kind, note });
export const listBin = () => send<{ items: BinItem[] }>("GET", "/bin").then((r) => r.items);
export const putBack = ({ kind, id }: BinItem) => send<undefined>("POST", `/bin/${kind}/${id}/back`);
export const deleteForGood = ({ kind, id }: BinItem) => send<undefined>("DELETE", `/bin/${kind}/${id}`);
export const emptyBin = () => send<undefined>("DELETE", "/bin");

export const createDemoWells = () => send<{ designs: DesignItem[] }>("POST", "/wells/demo").then((r) => r.designs);
export const copyDesign = (id: number, name: string) => send<Saved>("POST", `/designs/${id}/copies`, { name });
export const renameDesign = (id: number, name: string) => send<undefined>("PUT", `/designs/${id}/name`, { name });
export const deleteDesign = (id: number) => send<undefined>("DELETE", `/designs/${id}`);
export const listRevisions = (id: number, before?: number) =>
  send<RevisionList>("GET", `/designs/${id}/revisions${before === undefined ? "" : `?before=${before}`}`);
export const getRevision = (id: number, number: number) => send<Design>("GET", `/designs/${id}/revisions/${number}`);
export const compareDesigns = (id: number, other: number) => send<Comparison>("GET", `/designs/${id}/comparison/${other}`);

export type TableTarget = Target;
export const readPaste = (target: Target, text: string, first: string, units: UnitChoice) =>
  send<Pasted>("POST", `/tables/${target}/paste`, { text, first, units });
export const previewTable = (target: Target, source: { name: string; data: string }) =>
  send<Preview>("POST", `/tables/${target}/preview`, source);
export const takeTable = (
  target: Target,
  source: { name: string; data: string },
  mapping: Mapping,
  trajectory: Design["trajectory"],
  units: UnitChoice,
) => send<Taken>("POST", `/tables/${target}/import`, { ...source, mapping, trajectory, units });

export async function importWell(file: File): Promise<Saved> {
  const init = { method: "POST", body: file, headers: { ...named(), "Content-Type": "application/octet-stream" } };
  return answer<Saved>(await fetch("/api/wells/file", init));
}

export const listFormulas = () => send<{ formulas: FormulaItem[] }>("GET", "/formulas").then((r) => r.formulas);
export const tryFormula = (name: string, inputs: Record<string, number | number[]>) =>
  send<Trial>("POST", `/formulas/${encodeURIComponent(name)}`, { inputs });

/** What an answer says is wrong, fault by fault; without an answer, that there was none. */
export function saidOf(error: unknown, words: (path: string) => string): string {
  if (!(error instanceof ProblemError)) return "The server is not reached.";
  const { faults, detail } = error.problem;
  return faults.length === 0 ? detail : faults.map((f) => `${words(f.path)}: ${f.value}; expected ${f.expected}`).join(". ");
}
