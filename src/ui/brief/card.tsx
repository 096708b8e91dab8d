import type { Card } from '@/core/approach';
import { CardSide } from './card-side';
import { SightDrawing } from '../lab/sight-drawing';

/** One A5 card, both sides, black on white: the same strings as the PDF. */
export function KneeboardCard({ card }: { card: Card }) {
  const head = (side: string) => (
    <header>
      <h1>{card.title}</h1>
      <p>
        {card.line}, {side}
      </p>
      <p className="rev">{card.revision}</p>
    </header>
  );
  return (
    <div className="cards">
      <CardSide label="Card, front">
        {head('front')}
        {card.warnings.length > 0 ? (
          <ul className="warn">
            {card.warnings.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        ) : null}
        <table aria-label="Gates" className="gates">
          <thead className="visually-hidden">
            <tr>
              <th scope="col">Gate</th>
              <th scope="col">Speed</th>
              <th scope="col">Height</th>
              <th scope="col">Altimeter</th>
              <th scope="col">Configuration</th>
            </tr>
          </thead>
          <tbody>
            {card.gates.map((g) => (
              <tr key={g.name}>
                <th scope="row">{g.name}</th>
                <td className="speed">
                  {g.speed}
                  <div>{g.power}</div>
                </td>
                <td>{g.height}</td>
                <td>{g.altimeter}</td>
                <td className="words">{g.configuration}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {card.front.map((s) => (
          <section key={s.title}>
            <h2>{s.title}</h2>
            {s.lines.map((l) => (
              <p key={l}>{l}</p>
            ))}
          </section>
        ))}
      </CardSide>
      <CardSide label="Card, back">
        {head('back')}
        {card.back.map((s) => (
          <section key={s.title}>
            <h2>{s.title}</h2>
            {s.lines.map((l) => (
              <p key={l}>{l}</p>
            ))}
          </section>
        ))}
        {card.pictures.length > 0 ? (
          <section>
            <h2>What you will see</h2>
            <div className="strip-pictures">
              {card.pictures.map((p) => (
                <figure key={p.title}>
                  <SightDrawing scene={p.scene} label={`${p.title}, ${p.line}`} plain />
                  <figcaption>
                    <strong>{p.title}</strong> {p.line}
                  </figcaption>
                </figure>
              ))}
            </div>
          </section>
        ) : null}
        <h2>Paper tally, same codes as the screen</h2>
        <table aria-label="Paper tally" className="tally">
          <thead>
            <tr>
              <th scope="col">
                <span className="visually-hidden">landing</span>
              </th>
              {card.tally.columns.map((c) => (
                <th scope="col" key={c.head}>
                  {c.head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {Array.from({ length: card.tally.rows }, (_, i) => (
              <tr key={i}>
                <th scope="row">{i + 1}</th>
                {card.tally.columns.map((c) => (
                  <td key={c.head} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <dl className="codes">
          {card.tally.columns.map((c) => (
            <div key={c.head}>
              <dt>{c.head}</dt>
              <dd>{c.codes}</dd>
            </div>
          ))}
        </dl>
        <p className="rev">{card.caution}</p>
      </CardSide>
    </div>
  );
}
