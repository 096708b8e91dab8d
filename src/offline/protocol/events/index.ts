/**
 * The register of capture events: a file for each type says what it affects, who may say it and how it is folded. A type
 * that is left out, here or among the schemas of `domain/capture`, does not compile.
 */
import type { CaptureEvent, EventPayload } from '@/domain/capture';
import { EVENT_TYPES, type EventType } from '@/domain/words';
import { corrected } from './corrected';
import { cutShort } from './cut-short';
import type { EventDefinition, Facet } from './definition';
import { fieldSet } from './field-set';
import { gearChecked } from './gear-checked';
import { gearEvent } from './gear-event';
import { handedOver } from './handed-over';
import { itemObserved } from './item-observed';
import { itemWaived } from './item-waived';
import { landingSaved } from './landing-saved';
import { limitExceeded } from './limit-exceeded';
import { limitOverridden } from './limit-overridden';
import { measured } from './measured';
import { overruled } from './overruled';
import { pilotSwapped } from './pilot-swapped';
import { powerFound } from './power-found';
import { runwaySet } from './runway-set';
import { stopExplained } from './stop-explained';
import { timerMarked } from './timer-marked';
import { trialFlown } from './trial-flown';
import { undone } from './undone';
import { windLogged } from './wind-logged';

export type { EventDefinition, Facet } from './definition';
export type { EventOf } from './state';

const EVENTS: { readonly [T in EventType]: EventDefinition<T> } = {
  'field-set': fieldSet,
  'landing-saved': landingSaved,
  corrected,
  undone,
  'wind-logged': windLogged,
  'item-observed': itemObserved,
  'item-waived': itemWaived,
  'gear-checked': gearChecked,
  'gear-event': gearEvent,
  'power-found': powerFound,
  'trial-flown': trialFlown,
  'timer-marked': timerMarked,
  'runway-set': runwaySet,
  'pilot-swapped': pilotSwapped,
  measured,
  overruled,
  'stop-explained': stopExplained,
  'limit-overridden': limitOverridden,
  'limit-exceeded': limitExceeded,
  'cut-short': cutShort,
  'handed-over': handedOver,
};

/**
 * What is known of an event's type; null = a type of a later release. The definition fits the event because both carry
 * the same type: the one place that says so.
 */
export function definitionOf(event: Pick<CaptureEvent, 'type'>): EventDefinition<EventType> | null {
  return (EVENTS[event.type] as EventDefinition<EventType> | undefined) ?? null;
}
/** The payload of an event, as the schema of its version left it at the door. */
const payloadOf = (event: Pick<CaptureEvent, 'payload'>): EventPayload<EventType> =>
  event.payload as EventPayload<EventType>;

/**
 * The types that change any of these.
 * @example affecting('clock') // ['undone', 'timer-marked']
 */
export const affecting = (...facets: readonly Facet[]): EventType[] =>
  EVENT_TYPES.filter((type) => EVENTS[type].affects.some((f) => facets.includes(f)));

/** The pilot an event names; null = nobody in particular. */
export const pilotNamed = (event: Pick<CaptureEvent, 'type' | 'payload'>): string | null =>
  definitionOf(event)?.names?.(payloadOf(event)) ?? null;
/** Types that may name a pilot of a landing or an item. */
export const NAMING: readonly EventType[] = EVENT_TYPES.filter(
  (type) => EVENTS[type].names !== undefined && EVENTS[type].affects.includes('captured'),
);
/** What an event does to an agreement of wheels and surface. */
export const agreementEnds = (event: Pick<CaptureEvent, 'type' | 'payload'>): string[] =>
  definitionOf(event)?.ends?.(payloadOf(event)) ?? [];
