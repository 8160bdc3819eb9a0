import type { ColumnType, Generated, JSONColumnType } from 'kysely'
import type { Plan } from '~core/plan/types'
import type { FrozenRun } from '~core/plan/run'
import type { CastSummary, PourSummary } from '~core/pour/projection'
import type { Series, Tally } from '~core/logbook/tallies'
import type { AuditCode, Role, TicketKind } from '~contract/account'
import type { Doing, ResultFacts, Task } from '~contract/classroom'
import type { WorkshopClock } from '~contract/clock'
import type { DeviceId } from '~contract/devices'
import type { ImportCounts, ImportKind, ImportState, ThingKind } from '~contract/import-state'
import type { LibraryBodies, LibraryKind } from '~contract/library'
import type { LinkKind } from '~contract/link'
import type { LogbookQuery } from '~contract/logbook'
import type { UnitPreferences } from '~core/units/units'

type Json<T extends object> = JSONColumnType<T>
type BigintAsNumber = ColumnType<number, number, number>

interface WorkshopTable {
  id: string
  name: string
  units: Json<UnitPreferences>
  clock: Json<WorkshopClock>
  event_seq: Generated<number>
  demo: boolean
  created_at: Generated<Date>
  /** Where its records are, and whether they are on their way: homes.ts. */
  home: Generated<string | null>
  moving: Generated<boolean>
  /** To which home those that are here went, and when: what is left is a copy. */
  gone_to: Generated<string | null>
  gone_at: Generated<Date | null>
}
/** Who signs in. */
interface AccountTable {
  id: string
  email: string
  password_hash: string
  /** The workshop that was entered last. */
  workshop_id: string | null
  /** Sealed: server/auth/second-factor.ts. */
  second_factor: string | null
  /** One that was offered and not confirmed yet. */
  second_factor_asked: string | null
  /** The half minute whose code was used last: no code is taken twice. */
  second_factor_step: BigintAsNumber | null
  recovery_sha256: ColumnType<string[], string[] | undefined, string[]>
  created_at: Generated<Date>
}
/** Somebody in one workshop; without an account only a name of what they wrote. */
interface PersonTable {
  id: string
  workshop_id: string
  account_id: string | null
  name: string
  role: Role
  archived_at: Date | null
  created_at: Generated<Date>
}
interface SessionTable {
  id: string
  account_id: string
  workshop_id: string
  person_id: string
  token_sha256: string
  device: string
  place: string
  made_at: Generated<Date>
  used_at: Generated<Date>
}
/** A browser from which this account was signed in to before: others' guesses do not shut it out. */
interface KnownDeviceTable {
  token_sha256: string
  account_id: string
  used_at: Generated<Date>
}
/** A secret that opens one door once. */
interface TicketTable {
  id: string
  kind: TicketKind
  token_sha256: string
  workshop_id: string | null
  account_id: string | null
  role: Role | null
  name: Generated<string>
  made_at: Generated<Date>
  ends_at: Date
}
/** The public half of a key that a device holds: server/store/passkeys.ts. */
interface PasskeyTable {
  id: string
  account_id: string
  /** The name of the server it was made for. */
  host: string
  credential: string
  public_key: string
  counter: BigintAsNumber
  transports: string[]
  name: string
  made_at: Generated<Date>
  used_at: Date | null
}
interface AnsweredChallengeTable {
  sha256: string
  at: Generated<Date>
}
interface AuditTable {
  workshop_id: string
  id: string
  at: Generated<Date>
  code: AuditCode
  who: Generated<string>
  about: Generated<string>
  place: Generated<string>
}
interface GuessTable {
  key: string
  tries: number
  free_at: Date
  tried_at: Date
}
interface LibraryItemTable {
  id: string
  workshop_id: string
  kind: LibraryKind
  schema_version: Generated<number>
  body: Json<LibraryBodies[LibraryKind]>
  revision: Generated<number>
  archived_at: Date | null
}
interface PlanTable {
  id: string
  workshop_id: string
  schema_version: number
  body: Json<Plan>
  revision: Generated<number>
  updated_at: Date
  archived_at: Date | null
}
interface PourTable {
  id: string
  workshop_id: string
  plan_id: string | null
  run: Json<FrozenRun>
  started_by: string
  created_at: Generated<Date>
}
interface PourEventTable {
  id: string
  workshop_id: string
  pour_id: string
  seq: BigintAsNumber
  batch: number | null
  kind: string
  version: number
  data: Json<object>
  /** Milliseconds on the workshop's clock. */
  happened_at: BigintAsNumber
  recorded_at: BigintAsNumber
  received_at: Generated<Date>
  /** The device's clock against the workshop's when it was sent. */
  skew_ms: BigintAsNumber
  device: string
  device_seq: number
  actor: string
  /** The refused entry it stands for. */
  mends: string | null
  /** By how much its moment may be otherwise. */
  doubt_ms: BigintAsNumber | null
}
interface PourProjectionTable {
  pour_id: string
  workshop_id: string
  status: string
  started_at: number | null
  body: Json<PourSummary>
  /**
   * Its words, their beginnings and its facts: one list and one index, so that what is sought together is looked up
   * together, the rarest first.
   */
  found_by: string[]
  /** What it adds to the counts. */
  tallies: ColumnType<readonly Tally[], string, string>
  rules: number
  /** The number of its last entry. */
  seq: number
}
interface CastProjectionTable {
  pour_id: string
  workshop_id: string
  cast_id: string
  /** How far the cast is; `abandoned` with its pour. */
  status: string
  finished_at: BigintAsNumber | null
  body: Json<CastSummary>
}

interface TallyTable {
  workshop_id: string
  series: Series
  key: string
  month: string
  pours: number
  casts: number
  judged: number
  good: number
  second: number
  waste: number
  powder_grams: BigintAsNumber
  cost_hundredths: BigintAsNumber
  pieces: number
  took_casts: number
  took_mm3: BigintAsNumber
}
/** Every word that some pour of a workshop was found by, once. */
interface LogbookWordTable {
  workshop_id: string
  word: string
}
interface LogbookViewTable {
  id: string
  workshop_id: string
  name: string
  query: Json<LogbookQuery>
  created_at: Generated<Date>
}

interface MeshTable {
  id: string
  workshop_id: string
  mould_id: string
  name: string
  unit: string
  triangles: number
  parts: number
  sha256: string | null
  created_at: Generated<Date>
}
interface MeshPartTable {
  mesh_id: string
  part: number
  workshop_id: string
  data: Buffer
}

interface LinkTable {
  id: string
  workshop_id: string
  kind: LinkKind
  name: string
  token_sha256: string
  created_at: Generated<Date>
}

interface PhotoTable {
  id: string
  workshop_id: string
  mould_id: string | null
  pour_id: string | null
  cast_id: string | null
  caption: string
  width: number
  height: number
  sha256: string
  data: Buffer
  created_at: Generated<Date>
}

interface DeviceTable {
  workshop_id: string
  id: string
  kind: DeviceId
  name: string
  token_sha256: string
  made_at: Generated<Date>
  heard_at: Date | null
}

interface ImportFault { readonly sentence: string, readonly field?: string }
/** Something that is brought in from a file. */
interface ImportJobTable {
  workshop_id: string
  id: string
  kind: ImportKind
  name: string
  begun_by: string
  state: ImportState
  /** Of what it does now, 0 to 1. */
  share: Generated<number>
  counts: ColumnType<Partial<ImportCounts>, string | undefined, string>
  fault: ColumnType<ImportFault | null, string | null | undefined, string | null>
  /** Somebody asked that it be ended. */
  unwanted: Generated<boolean>
  made_at: Generated<Date>
  /** When whoever works on it last said so. */
  heard_at: Generated<Date>
}
/** A thing that was brought, and its number then: the last entry of a pour, the revision of what is saved whole. */
interface ImportThingTable {
  workshop_id: string
  job_id: string
  kind: ThingKind
  id: string
  version: BigintAsNumber
}

/** A class. What one kit is, is frozen with it. */
interface ClassroomTable {
  id: string
  workshop_id: string
  name: string
  code: string
  teacher: string
  opened_at: Generated<Date>
  ends_at: Date
  shut: Generated<boolean>
  paused: Generated<boolean>
  /** Its names are not deleted by themselves. */
  kept: Generated<boolean>
  task: ColumnType<Task, string | undefined, string>
  tasks: Generated<number>
  kit: ColumnType<{ readonly plan: string, readonly run: FrozenRun } | null, string | undefined, string | null>
  /** The step that all kits without a phone are at; -1 before the first. */
  led: Generated<number>
}
/** Somebody in a class, by a first name; without a secret they have no phone. */
interface SeatTable {
  id: string
  workshop_id: string
  classroom_id: string
  number: number
  name: string
  token_sha256: string | null
  heard_at: Date | null
  doing: ColumnType<Doing | null, string | null | undefined, string | null>
  /** The pour of its kit, named before it is begun. */
  pour_id: string | null
  colour: Generated<string>
  sent_out: Generated<boolean>
}
interface SeatResultTable {
  workshop_id: string
  seat_id: string
  task: number
  body: ColumnType<ResultFacts, string, string>
  at: Generated<Date>
}

export interface Database {
  workshop: WorkshopTable
  account: AccountTable
  person: PersonTable
  session: SessionTable
  known_device: KnownDeviceTable
  ticket: TicketTable
  passkey: PasskeyTable
  answered_challenge: AnsweredChallengeTable
  audit: AuditTable
  guess: GuessTable
  library_item: LibraryItemTable
  plan: PlanTable
  pour: PourTable
  pour_event: PourEventTable
  pour_projection: PourProjectionTable
  cast_projection: CastProjectionTable
  tally: TallyTable
  logbook_word: LogbookWordTable
  logbook_view: LogbookViewTable
  mesh: MeshTable
  mesh_part: MeshPartTable
  photo: PhotoTable
  link: LinkTable
  device: DeviceTable
  import_job: ImportJobTable
  import_thing: ImportThingTable
  classroom: ClassroomTable
  seat: SeatTable
  seat_result: SeatResultTable
}
