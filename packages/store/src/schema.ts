import type { Effect } from '@clembo/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
  varchar,
} from 'drizzle-orm/pg-core';
import type { Role } from './access';
import type { JobState } from './jobs/kinds';

const bytes = customType<{ data: Uint8Array; driverData: Buffer }>({
  dataType: () => 'bytea',
  toDriver: (value) => Buffer.from(value),
  fromDriver: (value) => new Uint8Array(value),
});

const id = () => uuid('id').primaryKey().defaultRandom();
const createdAt = () => timestamp('created_at', { withTimezone: true }).notNull().defaultNow();
const updatedAt = () => timestamp('updated_at', { withTimezone: true }).notNull().defaultNow();

/** Everything belongs to a workspace; what a person may see is decided by it. */
export const workspace = pgTable('workspace', {
  id: id(),
  name: text('name').notNull(),
  /** Whose notation numbers and money are written in (BCP 47). */
  locale: text('locale').notNull().default('en-GB'),
  /** Whether comments are seen by those who only look. */
  commentsForAll: boolean('comments_for_all').notNull().default(false),
  /** How new pages begin. */
  house: jsonb('house').notNull().default({}),
  createdAt: createdAt(),
});

const planId = () =>
  uuid('plan_id')
    .notNull()
    .references(() => plan.id, { onDelete: 'cascade' });

const workspaceId = () =>
  uuid('workspace_id')
    .notNull()
    .references(() => workspace.id, { onDelete: 'cascade' });

/** Somebody who signs in. The names of these four tables' columns are those of the library that signs people in. */
export const person = pgTable('person', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  email: text('email').notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  createdAt: createdAt(),
  updatedAt: updatedAt(),
});

const personId = () =>
  text('person_id')
    .notNull()
    .references(() => person.id, { onDelete: 'cascade' });

export const signIn = pgTable('sign_in', {
  id: text('id').primaryKey(),
  token: text('token').notNull().unique(),
  userId: personId(),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  ipAddress: text('ip_address'),
  userAgent: text('user_agent'),
  createdAt: createdAt(),
  updatedAt: updatedAt(),
});

export const credential = pgTable('credential', {
  id: text('id').primaryKey(),
  accountId: text('account_id').notNull(),
  providerId: text('provider_id').notNull(),
  userId: personId(),
  accessToken: text('access_token'),
  refreshToken: text('refresh_token'),
  idToken: text('id_token'),
  accessTokenExpiresAt: timestamp('access_token_expires_at', { withTimezone: true }),
  refreshTokenExpiresAt: timestamp('refresh_token_expires_at', { withTimezone: true }),
  scope: text('scope'),
  password: text('password'),
  createdAt: createdAt(),
  updatedAt: updatedAt(),
});

export const verification = pgTable('verification', {
  id: text('id').primaryKey(),
  identifier: text('identifier').notNull(),
  value: text('value').notNull(),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  createdAt: createdAt(),
  updatedAt: updatedAt(),
});

/** Who belongs to a workspace, and what they may do there; a guest (no role) only what is said by plan. */
export const member = pgTable(
  'member',
  {
    workspaceId: workspaceId(),
    personId: personId(),
    role: text('role').$type<Role>(),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.personId] }), index('member_by_person').on(t.personId)],
);

/** What somebody may do with one plan, in the place of what the workspace says. */
export const planRole = pgTable(
  'plan_role',
  {
    planId: planId(),
    personId: personId(),
    role: text('role').$type<Role>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.personId] }), index('plan_role_by_person').on(t.personId)],
);

/** Somebody who was asked to join, until they do. Only a digest of what is in the mail is kept. */
export const invitation = pgTable(
  'invitation',
  {
    id: id(),
    workspaceId: workspaceId(),
    /** The plan that it is for; null for the whole workspace. */
    planId: uuid('plan_id').references(() => plan.id, { onDelete: 'cascade' }),
    email: text('email').notNull(),
    role: text('role').$type<Role>().notNull(),
    digest: text('digest').notNull().unique(),
    invitedBy: text('invited_by'),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
    createdAt: createdAt(),
  },
  (t) => [index('invitation_by_workspace').on(t.workspaceId)],
);

/** Mail that went out, or would have: without a server for mail it stays in this mailbox. */
export const mail = pgTable(
  'mail',
  {
    id: id(),
    to: text('to').notNull(),
    subject: text('subject').notNull(),
    text: text('text').notNull(),
    /** When a server took it; null while it waits, or where there is none. */
    sentAt: timestamp('sent_at', { withTimezone: true }),
    createdAt: createdAt(),
  },
  (t) => [index('mail_by_time').on(t.createdAt)],
);

/** How often something was tried, for limits; its columns are those of the library that counts. */
export const attempt = pgTable('attempt', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
});

/** Who did what and when. Rows are added and never changed: the database refuses it. */
export const deed = pgTable(
  'deed',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    workspaceId: uuid('workspace_id').notNull(),
    planId: uuid('plan_id'),
    about: text('about').notNull(),
    words: text('words').notNull(),
    /** Who it was, by name; null where nobody is told apart. */
    person: text('person'),
    at: timestamp('at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index('deed_by_workspace').on(t.workspaceId, t.id)],
);

export const plan = pgTable(
  'plan',
  {
    id: id(),
    workspaceId: workspaceId(),
    name: text('name').notNull(),
    source: text('source').notNull(),
    asPromised: boolean('as_promised').notNull().default(false),
    inHours: boolean('in_hours').notNull(),
    criticalFloat: integer('critical_float').notNull(),
    retainedLogic: boolean('retained_logic').notNull(),
    periods: jsonb('periods').notNull().default([]),
    lines: jsonb('lines').notNull().default([]),
    matchRules: jsonb('match_rules').notNull().default([]),
    buildViews: jsonb('build_views').notNull().default([]),
    percentShown: text('percent_shown').notNull().default('stated'),
    resources: jsonb('resources').notNull().default([]),
    /** Fields that every activity must have, and findings that are well as they are. */
    required: jsonb('required').notNull().default([]),
    aside: jsonb('aside').notNull().default([]),
    /** How far off is normal; null for the usual. */
    tolerance: jsonb('tolerance'),
    tolerances: jsonb('tolerances').notNull().default([]),
    currency: text('currency'),
    effortDay: integer('effort_day'),
    /** The edition that is measured against; null for the first one. */
    baselineEdition: uuid('baseline_edition'),
    /** Put away, and not yet gone: it can be brought back. */
    deletedAt: timestamp('deleted_at', { withTimezone: true }),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
  },
  (t) => [index('plan_by_workspace').on(t.workspaceId, t.updatedAt)],
);

/** The pictures along the lines of a plan. */
export const planPicture = pgTable(
  'plan_picture',
  {
    planId: planId(),
    key: text('key').notNull(),
    position: integer('position').notNull(),
    name: text('name').notNull(),
    /** A data URL. */
    data: text('data').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.key] })],
);

/** What an activity of a plan does to building elements. */
export const elementMatch = pgTable(
  'element_match',
  {
    planId: planId(),
    activity: text('activity').notNull(),
    effect: text('effect').$type<Effect>().notNull(),
    elements: jsonb('elements').$type<string[]>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.activity, t.effect] })],
);

/** Building elements with a value of a code field of a plan. */
export const elementCode = pgTable(
  'element_code',
  {
    planId: planId(),
    field: text('field').notNull(),
    code: text('code').notNull(),
    elements: jsonb('elements').$type<string[]>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.field, t.code] })],
);

/** A state of a plan's data. One is the working edition; the others never change. */
export const edition = pgTable(
  'edition',
  {
    id: id(),
    planId: planId(),
    name: text('name').notNull(),
    note: text('note').notNull().default(''),
    working: boolean('working').notNull(),
    /** Counts the writes to the working edition. */
    version: integer('version').notNull().default(1),
    /** Counts what the working edition was put in the place of: of what stood there before nothing can be taken back. */
    lineage: integer('lineage').notNull().default(1),
    /** The version of the working edition that it was kept of, where that is known. */
    ofVersion: integer('of_version'),
    /** Which dates it shows, and whether promised ones stand in for none; null for the working edition, which the plan decides. */
    source: text('source'),
    asPromised: boolean('as_promised'),
    statusDate: integer('status_date'),
    start: integer('start'),
    /** Key of the calendar of activities that name none. */
    calendar: text('calendar').notNull(),
    /** How many activities and links belong to it: less of them would be a loss that nobody sees. */
    activityCount: integer('activity_count'),
    linkCount: integer('link_count'),
    /** While its rows are not written: what a list says of them (activities without summaries, moments). */
    owed: jsonb('owed').$type<{ activities: number; start: number | null; finish: number | null }>(),
    createdAt: createdAt(),
  },
  (t) => [
    index('edition_by_plan').on(t.planId, t.createdAt),
    index('edition_owing').on(t.id).where(sql`${t.owed} is not null`),
    uniqueIndex('one_working_edition').on(t.planId).where(sql`${t.working}`),
  ],
);

/** The rows of a large edition once more, in one piece: it is opened in a fraction of the time. */
export const editionColumns = pgTable('edition_columns', {
  editionId: uuid('edition_id')
    .primaryKey()
    .references(() => edition.id, { onDelete: 'cascade' }),
  /** The version of the edition that they are of; of another one they are of no use. */
  version: integer('version').notNull(),
  content: bytes('content').notNull(),
});

const editionId = () =>
  uuid('edition_id')
    .notNull()
    .references(() => edition.id, { onDelete: 'cascade' });

/** Moments are minutes since 1970, durations and effort minutes, cost hundredths, places thousandths. */
export const activity = pgTable(
  'activity',
  {
    editionId: editionId(),
    ref: text('ref').notNull(),
    /** Activities stand in the order of their keys; between any two there is room for another. */
    orderKey: doublePrecision('order_key').notNull(),
    /** The source that it was read from, by its number in the plan, and its row there as a spreadsheet counts. */
    sourceNo: integer('source_no'),
    sourceRow: integer('source_row'),
    name: text('name').notNull(),
    kind: text('kind').notNull(),
    parent: text('parent'),
    calendar: text('calendar'),
    duration: integer('duration'),
    start: integer('start'),
    finish: integer('finish'),
    actualStart: integer('actual_start'),
    actualFinish: integer('actual_finish'),
    percent: doublePrecision('percent'),
    remaining: integer('remaining'),
    constraint: jsonb('constraint'),
    deadline: integer('deadline'),
    stretches: jsonb('stretches'),
    onHold: boolean('on_hold').notNull(),
    codes: jsonb('codes').notNull(),
    responsible: jsonb('responsible'),
    assignments: jsonb('assignments'),
    effort: doublePrecision('effort'),
    actualEffort: doublePrecision('actual_effort'),
    cost: bigint('cost', { mode: 'number' }),
    actualCost: bigint('actual_cost', { mode: 'number' }),
    fromPlace: integer('from_place'),
    toPlace: integer('to_place'),
    quantity: doublePrecision('quantity'),
    output: doublePrecision('output'),
    rate: doublePrecision('rate'),
    crews: doublePrecision('crews'),
    line: text('line'),
    occupies: boolean('occupies').notNull().default(false),
    rates: jsonb('rates'),
    notes: text('notes').notNull(),
    said: jsonb('said'),
    promised: jsonb('promised'),
  },
  (t) => [primaryKey({ columns: [t.editionId, t.ref] }), index('activity_in_order').on(t.editionId, t.orderKey)],
);

export const link = pgTable(
  'link',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    editionId: editionId(),
    fromRef: text('from_ref').notNull(),
    toRef: text('to_ref').notNull(),
    type: text('type').notNull(),
    lag: integer('lag').notNull(),
    lagCalendar: text('lag_calendar').notNull(),
  },
  (t) => [index('link_by_edition').on(t.editionId)],
);

/** A table that activities of a plan were read from, as it was read. */
export const source = pgTable(
  'source',
  {
    planId: planId(),
    /** Counts the sources of a plan. */
    no: integer('no').notNull(),
    /** Tables that were taken in together have the same number; the highest is what the plan was last refreshed from. */
    reading: integer('reading').notNull(),
    name: text('name').notNull(),
    sheet: text('sheet'),
    map: jsonb('map'),
    /** The table, packed; nothing for what was no table. */
    content: bytes('content'),
    /** References of the plan by those that the source gives the same activities, where they differ. */
    aliases: jsonb('aliases').notNull().default({}),
    /** What could not be read of it. */
    problems: jsonb('problems').notNull().default([]),
    /** Who took it in; null where nobody is told apart. */
    person: text('person'),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.no] })],
);

/** A refresh of a plan: what it changed, so that it can be taken back as a whole, and done again. */
export const refresh = pgTable(
  'refresh',
  {
    id: id(),
    planId: planId(),
    name: text('name').notNull(),
    /** The changes list of what was accepted, from the edition before to the one after. */
    changes: jsonb('changes').notNull(),
    /** How many changes of each kind were accepted and refused. */
    counts: jsonb('counts').notNull(),
    undone: boolean('undone').notNull().default(false),
    createdAt: createdAt(),
  },
  (t) => [index('refresh_by_plan').on(t.planId, t.createdAt)],
);

/** An ordered set of exhibits for an audience, of one plan or several. */
export const folio = pgTable(
  'folio',
  {
    id: id(),
    workspaceId: workspaceId(),
    name: text('name').notNull(),
    /** Its cover, pages and hops. */
    content: jsonb('content').notNull(),
    version: integer('version').notNull().default(1),
    /** When it was last written out, and the versions that its plans had then. */
    written: jsonb('written'),
    deletedAt: timestamp('deleted_at', { withTimezone: true }),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
  },
  (t) => [index('folio_by_workspace').on(t.workspaceId, t.updatedAt)],
);

/** What is done with a plan by itself every week: the newest file is taken, and pages are written. */
export const weeklyRun = pgTable(
  'weekly_run',
  {
    planId: uuid('plan_id')
      .primaryKey()
      .references(() => plan.id, { onDelete: 'cascade' }),
    workspaceId: workspaceId(),
    said: jsonb('said').notNull(),
    /** When it is next done; null while it rests. */
    nextAt: timestamp('next_at', { withTimezone: true }),
    /** How often it has failed since it last did not. */
    tries: integer('tries').notNull().default(0),
    /** What was taken last, by its SHA-256. */
    lastFile: text('last_file'),
    updatedAt: updatedAt(),
  },
  (t) => [index('weekly_run_by_next').on(t.nextAt)],
);

/** How a weekly run went. */
export const weeklyReport = pgTable(
  'weekly_report',
  {
    id: id(),
    planId: uuid('plan_id')
      .notNull()
      .references(() => weeklyRun.planId, { onDelete: 'cascade' }),
    at: timestamp('at', { withTimezone: true }).notNull(),
    state: text('state').notNull(),
    file: text('file'),
    words: text('words').notNull(),
    /** The intake that waits for a person. */
    intakeId: uuid('intake_id'),
    /** What was written, by its place below the folder of all runs. */
    written: jsonb('written').notNull(),
  },
  (t) => [index('weekly_report_by_plan').on(t.planId, t.at)],
);

/** A model of what is built: read once, and then unchangeable; a newer one takes its place. */
export const buildModel = pgTable(
  'build_model',
  {
    id: id(),
    planId: planId(),
    /** What stands before the identifiers of its elements. */
    key: text('key').notNull(),
    /** The file that it came in, and that file while it waits to be read. */
    file: text('file').notNull(),
    content: bytes('content'),
    /** The bodies of its elements, packed; nothing until it is read. */
    geometry: bytes('geometry'),
    elementCount: integer('element_count').notNull().default(0),
    /** Elements by the tasks that the model itself assigns to them. */
    assigned: jsonb('assigned').notNull().default([]),
    /** What could not be read of it. */
    notes: jsonb('notes').notNull().default([]),
    /** The model that it is to take the place of, and what would change by that. */
    replaces: uuid('replaces'),
    changes: jsonb('changes'),
    /** Whether it belongs to the plan; one that is read and not yet taken waits. */
    taken: boolean('taken').notNull().default(false),
    createdAt: createdAt(),
  },
  (t) => [index('build_model_by_plan').on(t.planId, t.createdAt)],
);

/** An element of a model, in the order of the model. */
export const buildElement = pgTable(
  'build_element',
  {
    modelId: uuid('model_id')
      .notNull()
      .references(() => buildModel.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    identifier: text('identifier').notNull(),
    name: text('name').notNull(),
    class: text('class').notNull(),
    type: text('type').notNull(),
    storey: text('storey').notNull(),
    properties: jsonb('properties').notNull(),
    classifications: jsonb('classifications').notNull(),
    length: doublePrecision('length'),
    area: doublePrecision('area'),
    volume: doublePrecision('volume'),
  },
  (t) => [
    primaryKey({ columns: [t.modelId, t.position] }),
    uniqueIndex('build_element_once').on(t.modelId, t.identifier),
  ],
);

/** Every command that changed the working edition of a plan, in order, with what takes it back. */
export const planChange = pgTable(
  'plan_change',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    planId: planId(),
    /** What it did, in words. */
    words: text('words').notNull(),
    /** Nothing where something else was put in the place of the working edition: a lineage begins. */
    command: jsonb('command'),
    inverse: jsonb('inverse'),
    /** References of the activities that it was about. */
    touched: text('touched').array().notNull().default([]),
    undone: boolean('undone').notNull().default(false),
    /** Of the working edition; only what is of the present one can be taken back or done again. */
    lineage: integer('lineage').notNull().default(1),
    person: text('person'),
    /** Whose it is; null where nobody is told apart. */
    account: text('account'),
    createdAt: createdAt(),
  },
  (t) => [index('plan_change_by_plan').on(t.planId, t.id)],
);

/** What was answered to a request that changed a plan: when it is sent again, it is not done again. */
export const planRequest = pgTable(
  'plan_request',
  {
    planId: planId(),
    /** Chosen by who asked. */
    request: uuid('request').notNull(),
    version: integer('version').notNull(),
    answer: jsonb('answer').notNull(),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.request] }), index('plan_request_by_version').on(t.planId, t.version)],
);

/** Every command as it was applied, by the version that it made: what others catch up with. */
export const planStep = pgTable(
  'plan_step',
  {
    planId: planId(),
    version: integer('version').notNull(),
    command: jsonb('command').notNull(),
    /** The id of the request that asked for it; null where it gave none. */
    request: uuid('request'),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.version] })],
);

/** Arrangements of a plan's ledger by their names; the one without a name is how it stood last. */
export const arrangement = pgTable(
  'arrangement',
  {
    planId: planId(),
    name: text('name').notNull(),
    arrangement: jsonb('arrangement').notNull(),
    updatedAt: updatedAt(),
  },
  (t) => [primaryKey({ columns: [t.planId, t.name] })],
);

/** A code book that is kept for other plans. */
export const keptBook = pgTable(
  'kept_book',
  {
    id: id(),
    workspaceId: workspaceId(),
    name: text('name').notNull(),
    field: jsonb('field').notNull(),
    createdAt: createdAt(),
  },
  (t) => [uniqueIndex('kept_book_by_name').on(t.workspaceId, t.name)],
);

/** A brief that is kept for other plans. */
export const keptBrief = pgTable(
  'kept_brief',
  {
    id: id(),
    workspaceId: workspaceId(),
    name: text('name').notNull(),
    brief: jsonb('brief').notNull(),
    /** Names of the code fields of the plan that it was kept from, by their ids. */
    fields: jsonb('fields').notNull(),
    createdAt: createdAt(),
  },
  (t) => [uniqueIndex('kept_brief_by_name').on(t.workspaceId, t.name)],
);

/** A plan to begin from. */
export const starter = pgTable(
  'starter',
  {
    id: id(),
    workspaceId: workspaceId(),
    name: text('name').notNull(),
    note: text('note').notNull().default(''),
    /** The plan, its activities and links as columns. */
    plan: jsonb('plan').notNull(),
    activities: integer('activities').notNull(),
    createdAt: createdAt(),
  },
  (t) => [index('starter_by_workspace').on(t.workspaceId, t.name)],
);

export const calendar = pgTable(
  'calendar',
  {
    editionId: editionId(),
    key: text('key').notNull(),
    position: integer('position').notNull(),
    spec: jsonb('spec').notNull(),
  },
  (t) => [primaryKey({ columns: [t.editionId, t.key] })],
);

/** Code fields and their books belong to the plan: titles, colours and shapes outlive editions. */
export const codeField = pgTable(
  'code_field',
  {
    planId: planId(),
    key: text('key').notNull(),
    name: text('name').notNull(),
    position: integer('position').notNull(),
    /** How it is filled by itself. */
    fill: jsonb('fill'),
  },
  (t) => [primaryKey({ columns: [t.planId, t.key] })],
);

export const codeValue = pgTable(
  'code_value',
  {
    planId: uuid('plan_id').notNull(),
    field: text('field').notNull(),
    position: integer('position').notNull(),
    code: text('code').notNull(),
    title: text('title').notNull(),
    colour: text('colour'),
    shape: text('shape'),
    parent: text('parent'),
    height: integer('height'),
  },
  (t) => [
    primaryKey({ columns: [t.planId, t.field, t.position] }),
    foreignKey({ columns: [t.planId, t.field], foreignColumns: [codeField.planId, codeField.key] }).onDelete('cascade'),
  ],
);

/** What was uploaded or pasted and is not yet a plan, with the column map as far as it is corrected. */
export const intake = pgTable(
  'intake',
  {
    id: id(),
    workspaceId: workspaceId(),
    /** What it is called: a file, or several. */
    source: text('source').notNull(),
    /** The plan that it is to refresh; null for a new one. */
    targetPlan: uuid('target_plan').references(() => plan.id, { onDelete: 'cascade' }),
    /** The tables that it was read to, packed; null until it is read. Nobody reads the file twice. */
    tables: bytes('tables'),
    /** Which tables are taken in, by which column maps. */
    state: jsonb('state'),
    /** What a person decided of the changes that a refresh would make. */
    choices: jsonb('choices'),
    /** What would come of it by this map. */
    preview: jsonb('preview'),
    /** The plan that it became. */
    planId: uuid('plan_id').references(() => plan.id, { onDelete: 'cascade' }),
    createdAt: createdAt(),
  },
  (t) => [index('intake_by_workspace').on(t.workspaceId, t.createdAt)],
);

/** The files of an intake as they were uploaded, or what was pasted. */
export const intakeFile = pgTable(
  'intake_file',
  {
    intakeId: uuid('intake_id')
      .notNull()
      .references(() => intake.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    name: text('name').notNull(),
    content: bytes('content').notNull(),
  },
  (t) => [primaryKey({ columns: [t.intakeId, t.position] })],
);

/** Column maps that were used, by the headings they fit, for the next file of that kind. */
export const columnMap = pgTable(
  'column_map',
  {
    id: id(),
    workspaceId: workspaceId(),
    headings: text('headings').notNull(),
    map: jsonb('map').notNull(),
    updatedAt: updatedAt(),
  },
  (t) => [uniqueIndex('column_map_by_headings').on(t.workspaceId, t.headings)],
);

export const exhibit = pgTable(
  'exhibit',
  {
    id: id(),
    planId: planId(),
    name: text('name').notNull(),
    brief: jsonb('brief').notNull(),
    position: integer('position').notNull(),
    /** Counts the changes to its name and brief. */
    version: integer('version').notNull().default(1),
    /** The version at which each part of it was last changed. */
    partVersions: jsonb('part_versions').notNull().default({}),
    deletedAt: timestamp('deleted_at', { withTimezone: true }),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
  },
  (t) => [index('exhibit_by_plan').on(t.planId, t.position)],
);

/** What is done beside the answers to people: its turn comes from the queue, how it stands is here. */
export const job = pgTable(
  'job',
  {
    id: id(),
    workspaceId: workspaceId(),
    kind: text('kind').notNull(),
    input: jsonb('input').notNull(),
    access: jsonb('access').notNull(),
    state: text('state').$type<JobState>().notNull().default('waiting'),
    revision: integer('revision').notNull().default(1),
    step: text('step').notNull().default(''),
    share: doublePrecision('share').notNull().default(0),
    result: jsonb('result'),
    file: bytes('file'),
    error: text('error'),
    /** The process that is at it, and when it was last heard of. */
    worker: text('worker'),
    seenAt: timestamp('seen_at', { withTimezone: true }),
    createdAt: createdAt(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
  },
  (t) => [index('job_by_state').on(t.state, t.createdAt), index('job_by_workspace').on(t.workspaceId)],
);

/** A page or a folio that is shown to whoever has its address, and nothing else of the workspace. */
export const sharedPage = pgTable(
  'shared_page',
  {
    id: id(),
    workspaceId: workspaceId(),
    /** The plan that its exhibit is of; null for a folio. */
    planId: uuid('plan_id').references(() => plan.id, { onDelete: 'cascade' }),
    exhibitId: uuid('exhibit_id').references(() => exhibit.id, { onDelete: 'cascade' }),
    folioId: uuid('folio_id').references(() => folio.id, { onDelete: 'cascade' }),
    /** How it is laid out: pages below each other, to be presented; or side by side, renewed by itself. */
    lay: text('lay').notNull(),
    /** Whether it stays as it is, and the edition that it is of; null for the working one. */
    frozen: boolean('frozen').notNull(),
    editionId: uuid('edition_id').references(() => edition.id, { onDelete: 'cascade' }),
    /** Salt and digest; null where none is asked for. */
    password: text('password'),
    /** Whether what is open among the comments on it stands below it. */
    comments: boolean('comments').notNull().default(false),
    /** Sites that may show it within their own pages. */
    origins: text('origins').array().notNull().default([]),
    expiresAt: timestamp('expires_at', { withTimezone: true }),
    revokedAt: timestamp('revoked_at', { withTimezone: true }),
    madeBy: text('made_by'),
    opened: integer('opened').notNull().default(0),
    openedAt: timestamp('opened_at', { withTimezone: true }),
    /** The page as it was composed last, and of what state of its plans. */
    content: bytes('content'),
    mark: text('mark'),
    createdAt: createdAt(),
  },
  (t) => [index('shared_page_by_workspace').on(t.workspaceId, t.createdAt)],
);

/** What somebody says beside an activity, an exhibit, or a plan; by reference, so that it survives a refresh. */
export const comment = pgTable(
  'comment',
  {
    id: id(),
    planId: planId(),
    /** The activity that it is about. */
    ref: text('ref'),
    /** The exhibit that it was said on. */
    exhibitId: uuid('exhibit_id').references(() => exhibit.id, { onDelete: 'cascade' }),
    /** The place of the exhibit, held by what is in the plan. */
    place: jsonb('place'),
    /** What it answers. */
    answers: uuid('answers'),
    text: text('text').notNull(),
    /** Who said it: by account where there are accounts, and by name. */
    account: text('account'),
    person: text('person'),
    doneAt: timestamp('done_at', { withTimezone: true }),
    doneBy: text('done_by'),
    changedAt: timestamp('changed_at', { withTimezone: true }),
    createdAt: createdAt(),
  },
  (t) => [
    index('comment_by_plan').on(t.planId, t.createdAt),
    foreignKey({ columns: [t.answers], foreignColumns: [t.id] }).onDelete('cascade'),
  ],
);

/** A file beside a comment. What it is was found by looking into it, not by its name. */
export const commentFile = pgTable(
  'comment_file',
  {
    commentId: uuid('comment_id')
      .notNull()
      .references(() => comment.id, { onDelete: 'cascade' }),
    no: integer('no').notNull(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    content: bytes('content').notNull(),
  },
  (t) => [primaryKey({ columns: [t.commentId, t.no] })],
);

/** That somebody was named in a comment, or answered. */
export const notice = pgTable(
  'notice',
  {
    account: text('account')
      .notNull()
      .references(() => person.id, { onDelete: 'cascade' }),
    commentId: uuid('comment_id')
      .notNull()
      .references(() => comment.id, { onDelete: 'cascade' }),
    readAt: timestamp('read_at', { withTimezone: true }),
    mailedAt: timestamp('mailed_at', { withTimezone: true }),
    createdAt: createdAt(),
  },
  (t) => [primaryKey({ columns: [t.account, t.commentId] }), index('notice_unread').on(t.account, t.readAt)],
);
