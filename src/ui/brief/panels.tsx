import { type BriefResult, crosswindSentences } from '@/core/approach';
import { fixed, headwindWords, windText, withUnit } from '@/core/format';
import type { BriefChoices } from '@/domain/brief';
import type { House } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { Panel } from '../shared/parts';
import { Source } from '../shared/source';
import { Verdict } from '../shared/verdict';
import { ApproachDrawing, LimitBars, RunwayDial, directionText } from './drawings';

export interface BriefFacts { pilotName: string; registration: string; sheet: TypeSheet; house: House; triggers: string[] }
interface Shown extends BriefFacts { choices: BriefChoices; result: BriefResult }

/** The pictures and answers of a brief; the same on the workbench and on the stored page. */
export function BriefPanels({ choices, result, sheet, pilotName, triggers, house }: Shown) {
  const used = result.runways.find((r) => r.ident === choices.runwayEnd);
  const said = crosswindSentences(result, choices.runwayEnd, pilotName.split(' ')[0] ?? pilotName);
  const fence = result.gates[result.gates.length - 1];
  const additive = result.gates.find((g) => g.additive > 0)?.additive ?? 0;
  return (
    <div className="grid">
      <div className="grid g-2-1">
        <Panel title="The way down, today">
          <ApproachDrawing result={result} unit={result.unit} />
          <p className="mb-0" style={{ fontSize: 14 }}>{additive > 0 ? `${fixed(additive)} ${result.unit} for the gusts is in the gates on final. ` : 'No gust additive in these speeds. '}{result.unit === 'mph' ? 'Miles per hour, as on this dial. ' : ''}Scaled from {result.landingRefMassKg} kg to {fixed(result.massKg)} kg.</p>
        </Panel>
        <Panel title={`Runway ${choices.runwayEnd} and the wind`}>
          <RunwayDial result={result} runwayEnd={choices.runwayEnd} windText={choices.wind ? windText(choices.wind) : 'unknown'} />
          {choices.wind ? <p className="soft mb-1" style={{ fontSize: 14 }}>{directionText(result.windTrueDeg, result.windMagneticDeg)}; {used ? headwindWords(used.headwindKt) : ''}</p> : null}
          <p className="mb-1"><strong>{said.lead}</strong></p>
          <p className="mb-1">{result.crosswind.verdict ? <Verdict verdict={result.crosswind.verdict}>{said.verdict}</Verdict> : said.verdict}</p>
          {result.chosenEnd && result.chosenEnd !== choices.runwayEnd ? <p className="mb-0 soft">Least crosswind: runway {result.chosenEnd}.</p> : null}
        </Panel>
      </div>
      <div className="grid g-3-2">
        <Panel title="Gate by gate">
          <div className="scroll-x"><table className="plain">
            <thead><tr><th>Gate</th><th className="r">Fly</th><th className="r">Sheet</th><th className="r">Flap</th><th>Power</th><th className="r">Over the stall</th></tr></thead>
            <tbody>{result.gates.map((g) => (
              <tr key={g.name}>
                <td>{g.name}</td>
                <td className="r num">{withUnit(g.target, result.unit)}</td>
                <td className="r mono">{withUnit(g.sheetValue, result.unit)}<Source source={g.source as never} reference={g.sourceRef} /></td>
                <td className="r mono">{g.flapDeg}°</td><td>{g.power}</td>
                <td className="r">{g.margin?.marginLevel ? <span className="mono">{g.margin.marginLevel.toFixed(2)}</span> : <span className="soft">not known</span>}{g.margin?.lowLevel ? <Verdict verdict="outside">under 1.3</Verdict> : g.margin?.sanctionedBy ? <span className="soft"> by {g.margin.sanctionedBy}</span> : null}</td>
              </tr>
            ))}</tbody>
          </table></div>
          <p className="mb-0 mt-2" style={{ fontSize: 14 }}>Stall today {result.vsToday.map((s) => `${withUnit(s.dial, result.unit)} flap ${s.flapDeg}°`).join(', ')}; manoeuvring {withUnit(result.vaDial, result.unit)}; best glide {withUnit(result.bestGlideDial, result.unit)}; all as indicated.</p>
        </Panel>
        <Panel title="Whose limit is the tightest"><LimitBars result={result} runwayEnd={choices.runwayEnd} /></Panel>
      </div>
      <div className="grid g-3">
        <Panel title="Flap and mass">
          <p className="mb-1">{result.flap.verdict === 'outside' ? <Verdict verdict="outside">no flap setting in this crosswind</Verdict> : result.flap.verdict === 'within' ? <>At most <strong>{result.flap.maxFlapDeg}°</strong>: {result.flap.reason}. <span className="soft">{sheet.crosswind.flapTableSource}</span></> : sheet.flapSteps.length > 1 ? 'No wind, so no verdict on flap.' : 'No flap on this aeroplane.'}</p>
          <p className="mb-0">{fixed(result.massKg)} kg of {result.maxMassKg} kg<Source source={sheet.masses.maxTakeoffKg.source} reference={sheet.masses.maxTakeoffKg.ref} />: {result.massKg <= result.maxMassKg ? <Verdict verdict={result.maxMassKg - result.massKg < 10 ? 'edge' : 'within'}>{fixed(result.maxMassKg - result.massKg)} kg in hand</Verdict> : <Verdict verdict="outside">{fixed(result.massKg - result.maxMassKg)} kg too heavy</Verdict>}</p>
        </Panel>
        <Panel title="Go around when">
          <ul className="mb-0 ps-3">{triggers.map((t) => <li key={t}>{t.startsWith('speed') && fence?.target ? `${t} (${fence.target} ${result.unit})` : t}</li>)}</ul>
          <p className="soft mb-0" style={{ fontSize: 14 }}>{sheet.goAroundFlow.join(', ')}. {house.reference}.</p>
        </Panel>
        <Panel title="Hands and feet">
          <p className="mb-0">I have control, you have control, I have control: hands <em>and feet</em> clear. A nudge is not taking control. Help comes early, and the record forgives it.</p>
        </Panel>
      </div>
      {result.warnings.length > 0 ? <div className="trouble" role="status"><strong>Look at this first</strong><ul>{result.warnings.map((w) => <li key={w}>{w}</li>)}</ul></div> : null}
    </div>
  );
}
