'use client';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { proxy } from 'comlink';
import {
  FOOT_MAP_RUNS,
  type FootMap as Map,
  type LabDay,
  type LabSheetData,
  type Settings,
  footMapFigure,
  footMapWords,
  labWords,
} from '@/core/lab';
import { fixed } from '@/core/format';
import { labWorker } from '@/workers';
import { Panel } from '../shared/parts';
import { FigureDrawing } from './figure-drawing';

/** Settings a map does not depend on: it goes through them. */
const keyOf = (sheet: LabSheetData, s: Settings): string =>
  JSON.stringify([sheet.name, { ...s, speed: null, foot: null, feet: s.feet === 'none' ? 'strokes' : s.feet }]);

/** Every speed with every first foot, on request: two thousand rolls, with progress, and stopped when asked. */
export function FootMap({ sheet, settings, day }: { sheet: LabSheetData; settings: Settings; day: LabDay }) {
  const [found, setFound] = useState<{ key: string; map: Map } | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const [failed, setFailed] = useState(false);
  const key = keyOf(sheet, settings);
  const shown = useRef(true);
  useEffect(() => {
    shown.current = true;
    return () => {
      shown.current = false;
      void labWorker().stopFootMap();
    };
  }, []);
  const make = async () => {
    setFailed(false);
    setDone(0);
    try {
      const map = await labWorker().footMap(
        sheet,
        settings,
        day,
        proxy((runs: number) => {
          if (shown.current) setDone(runs);
        }),
      );
      if (map && shown.current) setFound({ key, map });
    } catch {
      if (shown.current) setFailed(true);
    } finally {
      if (shown.current) setDone(null);
    }
  };
  const { unit } = sheet.dial;
  const words = found ? labWords(footMapWords(found.map, settings, unit)) : null;
  const old = found !== null && found.key !== key;
  return (
    <Panel title="How late a foot may be">
      {found && words ? (
        <>
          <p className="mb-1" role="status">
            {old ? 'The settings have changed since: make the map again.' : words}
          </p>
          <figure className="picture mb-2" style={old ? { opacity: 0.4 } : undefined}>
            <FigureDrawing figure={footMapFigure(found.map, settings, unit)} label={words} />
          </figure>
        </>
      ) : (
        <p className="mb-2">
          {fixed(FOOT_MAP_RUNS)} rolls: every speed with every first foot, the other settings as they are.
        </p>
      )}
      {failed ? (
        <p className="trouble" role="alert">
          The map stopped. Change a setting, and make it again.
        </p>
      ) : null}
      {done === null ? (
        <Button variant="outline-primary" onClick={() => void make()}>
          {found ? 'Make the map again' : 'Make the map'}
        </Button>
      ) : (
        <div className="d-flex gap-3 align-items-center">
          <progress className="flex-grow-1" max={FOOT_MAP_RUNS} value={done} aria-label="Rolls done" />
          <span className="small">
            {fixed(done)} of {fixed(FOOT_MAP_RUNS)}
          </span>
          <Button variant="outline-primary" onClick={() => void labWorker().stopFootMap()}>
            Stop
          </Button>
        </div>
      )}
    </Panel>
  );
}
