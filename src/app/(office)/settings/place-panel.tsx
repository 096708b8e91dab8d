import { list } from '@/core/format';
import type { Aerodrome } from '@/domain/sheet';
import { AerodromeDrawing } from '@/ui/shared/aerodrome-drawing';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';

/** One aerodrome of the school, drawn. */
export function PlacePanel({ aerodrome, home, edits }: { aerodrome: Aerodrome; home: boolean; edits: boolean }) {
  const { ident, name, runways, elevationFt, variationDeg, circuitHeightFt, timeZone, source } = aerodrome;
  return (
    <Panel title={`${name}, ${ident}${home ? '' : ': away'}`}>
      <AerodromeDrawing runways={runways} name={name} />
      <p className="mb-1 mt-2">
        {list(runways.map((r) => `${r.ends.map((e) => e.ident).join('/')} ${r.surface} ${r.lengthM} x ${r.widthM} m`))}.
        Elevation {elevationFt} ft, variation {Math.abs(variationDeg)}° {variationDeg < 0 ? 'west' : 'east'}, circuit{' '}
        {circuitHeightFt} ft, zone {timeZone}. <span className="soft">{source}</span>
      </p>
      {edits ? (
        <Link className="btn btn-sm btn-outline-primary" href={`/rules/aerodrome/${ident}/edit`}>
          Edit {home ? '' : `${name}: `}runways and airspace
        </Link>
      ) : null}
    </Panel>
  );
}
