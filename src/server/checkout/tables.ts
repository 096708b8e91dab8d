import { z } from 'zod';
import type { BriefResult } from '@/core/approach';
import type { Opening } from '@/core/plan';
import type { BriefChoices } from '@/domain/brief';
import { CHECKOUT_STATUS, PACKS } from '@/domain/words';
import { computed, day, instant, json, real, text, whole } from '../floor/columns';
import { goals } from '../floor/stored';
import { table } from '../floor/table';
import { Pilots, Users } from '../account/tables';
import { Airframes, AirframeVersions, TypeVersions } from '../hangar/tables';
import { ContentVersions } from '../rules/tables';

/** An item shown in another open checkout, and the newest day of what showed it. */
export const Carried = z.object({ itemId: z.string(), checkoutId: z.string(), on: z.string() });

export const Checkouts = table(
  'checkouts',
  {
    id: text,
    pilotId: text,
    instructorId: text,
    airframeId: text,
    airframeVersionId: text,
    typeVersionId: text,
    pack: z.enum(PACKS),
    goals: goals,
    programmeIds: json(z.array(z.string())),
    standardId: text,
    packId: text,
    houseId: text,
    schools: json(z.record(z.string(), z.string())),
    opening: computed<Opening>(),
    carried: json(z.array(Carried)),
    note: text,
    status: z.enum(CHECKOUT_STATUS),
    signedLedgerId: text.nullable(),
    requestId: text,
    createdBy: text,
    createdAt: instant,
  },
  {
    links: {
      pilot: [Pilots, 'pilotId'],
      instructor: [Users, 'instructorId'],
      airframe: [Airframes, 'airframeId'],
      airframeVersion: [AirframeVersions, 'airframeVersionId'],
      typeVersion: [TypeVersions, 'typeVersionId'],
      standardVersion: [ContentVersions, 'standardId'],
      packVersion: [ContentVersions, 'packId'],
      houseVersion: [ContentVersions, 'houseId'],
      creator: [Users, 'createdBy'],
    },
    defaults: ['note', 'status', 'carried'],
  },
);

export const Sorties = table(
  'sorties',
  {
    id: text,
    checkoutId: text,
    lesson: whole,
    flownOn: day,
    instructorId: text,
    createdAt: instant,
    secondPilotId: text.nullable(),
    secondCheckoutId: text.nullable(),
    sharedWith: text.nullable(),
    /** Code of the aerodrome it is flown at; null = home. */
    aerodrome: text.nullable(),
    /** The aeroplane it is flown in; a checkout may go on in another of the type. */
    airframeId: text.nullable(),
  },
  {
    links: {
      checkout: [Checkouts, 'checkoutId'],
      airframe: [Airframes, 'airframeId'],
      instructor: [Users, 'instructorId'],
      secondPilot: [Pilots, 'secondPilotId'],
      secondCheckout: [Checkouts, 'secondCheckoutId'],
    },
  },
);

export const Briefs = table(
  'briefs',
  {
    id: text,
    checkoutId: text,
    sortieId: text,
    version: whole,
    choices: computed<BriefChoices>(),
    snapshot: computed<BriefResult>(),
    createdBy: text,
    createdAt: instant,
    acknowledgedBy: text.nullable(),
    acknowledgedAt: instant.nullable(),
    requestId: text,
    sheets: json(z.object({ type: z.string(), typeVersion: z.number(), airframe: z.string() }).loose()).nullable(),
  },
  {
    links: {
      checkout: [Checkouts, 'checkoutId'],
      sortie: [Sorties, 'sortieId'],
      creator: [Users, 'createdBy'],
      acknowledger: [Users, 'acknowledgedBy'],
    },
  },
);

export const CheckoutMoves = table(
  'checkout_moves',
  {
    id: text,
    checkoutId: text,
    typeFrom: whole,
    typeTo: whole,
    airframeFrom: whole,
    airframeTo: whole,
    movedBy: text,
    movedAt: instant,
    reason: text,
    /** Where it went on in another aeroplane; null = only newer sheets. */
    fromAirframeId: text.nullable(),
    toAirframeId: text.nullable(),
  },
  {
    links: {
      checkout: [Checkouts, 'checkoutId'],
      mover: [Users, 'movedBy'],
      left: [Airframes, 'fromAirframeId'],
      taken: [Airframes, 'toAirframeId'],
    },
  },
);

export const BriefTemplates = table(
  'brief_templates',
  {
    goal: text,
    layout: computed<BriefChoices['layout']>(),
    author: text,
    createdAt: instant,
  },
  {
    key: ['goal'],
  },
);

export const StageTallies = table(
  'stage_tallies',
  {
    checkoutId: text,
    pilotId: text,
    typeCode: text,
    stage: whole,
    landings: whole,
    own: whole,
    inStandard: whole,
    partSum: real,
    partCount: whole,
  },
  {
    key: ['checkoutId', 'stage'],
    links: { checkout: [Checkouts, 'checkoutId'] },
  },
);

export const StageMedians = table(
  'stage_medians',
  {
    typeCode: text,
    stage: whole,
    pilots: whole,
    own: real,
    inStandard: real,
    part: real.nullable(),
    refreshedAt: instant,
  },
  {
    key: ['typeCode', 'stage'],
  },
);

export const SideTallies = table(
  'side_tallies',
  {
    checkoutId: text,
    author: text,
    pilotId: text,
    airframeId: text,
    newest: day,
    leftN: whole,
    lineN: whole,
    rightN: whole,
  },
  {
    key: ['checkoutId', 'author'],
    links: { checkout: [Checkouts, 'checkoutId'] },
  },
);
