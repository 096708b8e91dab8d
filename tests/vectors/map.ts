/**
 * The reference file's function names and keys, mapped onto core's own. One table, so that core keeps its own words.
 */
import { daysSince, evaluateRecency, validThrough, validity } from '@/core/recency';
import { density, densityAltitude, iasToCas, pressureAltitude, tas } from '@/core/air';
import {
  assessCriterion,
  assessGoAround,
  assessLanding,
  authorship,
  bias,
  ewma,
  runRule,
  share,
  theilSen,
  touchdownSpread,
} from '@/core/assess';
import { deceleration, scheduleFindings, slopeLights, speedPlateaus } from '@/core/approach';
import { breakSpacing, circuitLegs, taskGaps, windTriangle } from '@/core/circuit';
import { electricalTimeline } from '@/core/electrical';
import { type Flown, glide, polarFromGlide, powered } from '@/core/energy';
import { bsfcFlow, circuitsThatFit, endurance } from '@/core/fuel';
import { casterState, groundTurn, linearModel, rudderFade, taxiCorner, unstableBand } from '@/core/ground';
import { insideEnvelope, massBalance, trimFor } from '@/core/loading';
import { bestGlide, glidingTurn, reachEnds, reachPoint, straightGlide } from '@/core/reach';
import { runwayNeeded, tableDistance } from '@/core/runway';
import { goalsRequired } from '@/core/plan';
import {
  bodyToHorizon,
  leastOffset,
  pointVisible,
  rotateProfile,
  runwayEdges,
  thresholdLost,
} from '@/core/sightpicture';
import { crosswindHeld, slipBank, slipSink, slipTurn, tipClearance } from '@/core/slip';
import { loadAvailable, loadNeeded, slowestApproach } from '@/core/slowapproach';
import { acceleratedStall, gateTarget, levelTurn, scaleForMass, stallMargin } from '@/core/speeds';
import { firmnessOf, sideSpeed, springRebound, touchLoad } from '@/core/touchdown';
import { absoluteCeiling, driftDown, oneEngineClimb } from '@/core/twin';
import { gearSurface, gearSurfaceTable, waterAbortPoint } from '@/core/water';
import {
  chooseRunway,
  components,
  convertReference,
  crosswindVerdict,
  flapVerdict,
  pilotLadder,
  vs0Floor,
  worstCase,
} from '@/core/wind';

/** A case of the reference file is untyped by nature; each line below says which core function reads it. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Case = any;

const flown = (x: Case): Flown => ({ ...x, polar: { cd0: x.cd0, k: x.k } });

export const VECTOR_FUNCTIONS: Record<string, (x: Case) => unknown> = {
  'air.pressureAltitude': (x) => ({ pressureAltFt: pressureAltitude(x.elevFt, x.qnhHpa) }),
  'air.density': (x) => density(x.pressureAltFt, x.oatC, x.dewPointC),
  'air.densityAltitude': (x) => ({ densityAltFt: densityAltitude(x.sigma) }),
  'air.tas': (x) => tas(x.casKt, x.sigma, x.pressureAltFt),
  'air.iasToCas': (x) => {
    const r = iasToCas(
      x.iasKt,
      x.table.map((row: Case) => ({ ias: row.iasKt, correction: row.correctionKt })),
    );
    return { casKt: r.cas, correctionKt: r.correction, outsideTable: r.outsideTable };
  },
  'wind.components': (x) => components(x.windFromDeg, x.windKt, x.gustKt, x.runwayDeg),
  'wind.worstCase': (x) => worstCase(x, x.runwayDeg),
  'wind.convertReference': (x) => ({ directionDeg: convertReference(x.directionDeg, x.from, x.to, x.variationDeg) }),
  'wind.chooseRunway': (x) => chooseRunway(x, x, x.runways),
  'crosswind.verdict': (x) => crosswindVerdict(x),
  'crosswind.flapVerdict': (x) => flapVerdict(x.crosswindKt, x.gustCrosswindKt, x.table),
  'crosswind.pilotLadder': (x) => pilotLadder(x),
  'crosswind.vs0Floor': (x) => ({ floorKt: vs0Floor(x.vs0, x.unit) }),
  'speeds.scaleForMass': (x) => ({ speedKt: scaleForMass(x.kind, x.speedKt, x.refMassKg, x.massKg) }),
  'speeds.gateTarget': (x) => gateTarget(x),
  'speeds.stallMargin': (x) => stallMargin(x),
  'turn.level': (x) => levelTurn(x.tasKt, x.bankDeg),
  'ground.linearModel': (x) => linearModel(x, x.groundSpeedMs, x.yawInertiaKgM2),
  'ground.unstableBand': (x) => unstableBand(x),
  'ground.rudderFade': (x) => rudderFade(x),
  'touchdown.loadFactor': (x) => ({ loadFactor: touchLoad(x.sinkFpm, x.strokeM, x.efficiency) }),
  'touchdown.rebound': (x) => {
    const r = springRebound(x.sinkFpm, x.restitution);
    return { reboundHeightFt: r?.heightFt ?? null, reboundHeightM: r?.heightM ?? null, airTimeS: r?.airTimeS ?? null };
  },
  'touchdown.sideSpeed': (x) => {
    const s = sideSpeed(x.groundSpeedKt, x.crabDeg);
    return { sideSpeedKt: s.kt, sideSpeedMs: s.ms };
  },
  'touchdown.firmness': (x) => firmnessOf(x.sinkFpm, x.limitsFpm),
  'slip.crosswindHeld': (x) => ({ crosswindKt: crosswindHeld(x.tasKt, x.betaMaxDeg) }),
  'slip.bank': (x) => slipBank(x),
  'slip.sink': (x) => slipSink(x, x.tasKt, x.sideslipDeg),
  'slip.turnHeightLost': (x) => slipTurn(x, x.tasKt, x),
  'slip.tipClearance': (x) => tipClearance(x.bankDeg, x),
  'slowApproach.nAvail': (x) => loadAvailable(x),
  'slowApproach.nNeeded': (x) => ({ nNeeded: loadNeeded(x.sinkFpm, x.roundOutHeightFt) }),
  'slowApproach.fit': (x) => slowestApproach(x.trials, { ...x, gustAdditiveKt: x.gustAdditiveKt ?? 0 }),
  'stall.accelerated': (x) => acceleratedStall(x.vsKt, x.loadFactor, x.speedKt, x.buffetKt),
  'polar.fromGlide': (x) => polarFromGlide(x),
  'polar.glide': (x) => glide(flown(x), x),
  'polar.powered': (x) => powered(flown(x), x),
  'gates.deceleration': (x) => deceleration({ ...x, polar: { cd0: x.cd0, k: x.k } }),
  'gates.schedule': (x) => ({ findings: scheduleFindings(x) }),
  'gates.plateau': (x) => speedPlateaus(x),
  'gates.slopeLights': (x) => slopeLights(x),
  'fuel.bsfcFlow': (x) => bsfcFlow(x),
  'fuel.endurance': (x) => endurance(x),
  'fuel.circuits': (x) => circuitsThatFit(x),
  'loading.envelope': (x) => insideEnvelope(x.massKg, x.armM, x.envelope),
  'loading.massBalance': (x) => massBalance(x),
  'loading.trim': (x) => trimFor(x.armM, x.table),
  'electrical.timeline': (x) => electricalTimeline(x),
  'runway.tableLookup': (x) => tableDistance(x.table, x),
  'runway.required': (x) => runwayNeeded(x),
  'circuit.windTriangle': (x) => windTriangle(x),
  'circuit.legs': (x) => circuitLegs(x),
  'circuit.breakSpacing': (x) => ({ spacingM: breakSpacing(x) }),
  'circuit.taskGaps': (x) => taskGaps(x.tasks, x.minGapS),
  'ground.turn': (x) => groundTurn(x),
  'ground.corner': (x) => taxiCorner(x),
  'ground.casterState': (x) => casterState(x),
  'water.gearSurface': (x) => gearSurface(x),
  'water.abortPoint': (x) => waterAbortPoint(x),
  'twin.oneEngineClimb': (x) => oneEngineClimb(x),
  'twin.absoluteCeiling': (x) => ({ absoluteCeilingFt: absoluteCeiling(x.rocSeaLevelFpm, x.serviceCeilingFt) }),
  'twin.driftDown': (x) => driftDown(x),
  'water.gearSurfaceTable': (x) => gearSurfaceTable(x),
  'sight.pointVisible': (x) => pointVisible(x),
  'sight.rotateProfile': (x) => ({ points: rotateProfile(x.profile, x) }),
  'sight.pitchPicture': (x) => {
    const p = bodyToHorizon({ azimuthDeg: x.refAzimuthDeg, depressionDeg: x.refDepressionDeg }, x);
    return { belowHorizonDeg: p.depressionDeg, azimuthDeg: p.azimuthDeg };
  },
  'sight.leastOffset': (x) => leastOffset(x),
  'sight.thresholdLost': (x) => thresholdLost(x),
  'sight.runwayEdges': (x) => runwayEdges(x),
  'reach.turn': (x) => glidingTurn(x, x.tasKt, x.bankDeg, x.turnDeg),
  'reach.bestGlide': (x) => bestGlide(x),
  'reach.straight': (x) => straightGlide(x, x),
  'reach.toPoint': (x) => reachPoint(x, x),
  'reach.ends': (x) => reachEnds(x.position, x.runwayEnds),
  'assess.criterion': (x) => assessCriterion(x),
  'assess.landing': (x) => assessLanding(x),
  'assess.goAround': (x) => assessGoAround(x),
  'stats.share': (x) => share(x.successes, x.trials),
  'stats.runRule': (x) => runRule(x),
  'stats.bias': (x) => bias(x.values, x.practicalSize, x.confidence),
  'stats.touchdownMap': (x) => touchdownSpread(x.lateralM, x.alongM),
  'stats.theilSen': (x) => theilSen(x.x, x.y, x.confidence),
  'stats.ewma': (x) => ewma(x.values, x.centre, x.sigma, x.lam, x.limitL),
  'stats.authorship': (x) => authorship(x.levels, x.weights),
  'recency.validThrough': (x) => ({ validThrough: validThrough(x.fromDate, x) }),
  'recency.validity': (x) => validity(x),
  'recency.daysSince': (x) => daysSince(x.eventDates, x.onDate),
  'recency.evaluate': (x) => evaluateRecency(x),
  'goals.required': (x) => goalsRequired(x.sheet, x.pack),
};
