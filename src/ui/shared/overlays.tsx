'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import ModalBody from 'react-bootstrap/ModalBody';
import ModalHeader from 'react-bootstrap/ModalHeader';
import ModalTitle from 'react-bootstrap/ModalTitle';
import { Marked } from '../help/marked';
import { screenOf } from '../help/screens';
import { Switches } from '../help/switches';
import { foundIn } from './found-in';
import { Link } from './link';
import { ThemePicker } from './theme';

interface Hit {
  title: string;
  line: string;
  href: string;
}

export default function Overlays({
  open,
  staff,
  close,
}: {
  open: 'help' | 'palette';
  staff: boolean;
  close: () => void;
}) {
  return open === 'help' ? <Help staff={staff} close={close} /> : <Palette close={close} />;
}

const KEYS: [string, string][] = [
  ['?', 'this help'],
  ['/ or Ctrl K', 'find a person, a checkout, an aeroplane, a page, something to do'],
  ['g b', 'Board'],
  ['g c', 'Checkouts'],
  ['g h', 'Hangar'],
  ['g p', 'People'],
  ['g s', 'Schedule'],
  ['g l', 'Lab'],
  ['g e', 'Ledger'],
  ['n', 'new, in context'],
  ['[ ]', 'previous and next stage'],
  ['j k', 'next and previous section of the page'],
  ['g r', 'Recordings'],
];
const FLY_KEYS: [string, string][] = [
  ['N', 'next landing: eyes out'],
  ['G', 'go-around'],
  ['1 2 3 4', 'unassisted, prompted, assisted, instructor took over'],
  ['arrows', 'move the touchdown place'],
  ['C', 'clean'],
  ['Enter', 'save'],
  ['U', 'undo'],
];

function Help({ staff, close }: { staff: boolean; close: () => void }) {
  const screen = screenOf(usePathname(), staff);
  return (
    <Modal show onHide={close} aria-labelledby="help-title">
      <ModalHeader closeButton>
        <ModalTitle id="help-title" as="h2">
          Help: {screen.title}
        </ModalTitle>
      </ModalHeader>
      <ModalBody>
        <ul className="help-lines">
          {screen.lines.map((line) => (
            <li key={line}>
              <Marked text={line} />
            </li>
          ))}
        </ul>
        <p className="d-flex gap-3 flex-wrap">
          <Link href={screen.guide ? `/help/${screen.guide}` : '/help'} onClick={close}>
            Guide
          </Link>
          <Link href="/help/glossary" onClick={close}>
            Glossary
          </Link>
        </p>
        <ThemePicker />
        <Switches />
        <div className="grid g-1-1">
          <KeyList title="Everywhere" keys={KEYS} />
          <KeyList title="Recording circuits" keys={FLY_KEYS} />
        </div>
      </ModalBody>
    </Modal>
  );
}

function KeyList({ title, keys }: { title: string; keys: [string, string][] }) {
  return (
    <div>
      <h3 style={{ fontSize: 15, fontWeight: 700 }}>{title}</h3>
      <dl className="mb-0">
        {keys.map(([k, what]) => (
          <div key={k} className="mb-1">
            <dt className="d-inline">
              <kbd>{k}</kbd>
            </dt>
            <dd className="d-inline ms-2" style={{ fontSize: 14 }}>
              {what}
            </dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

function Palette({ close }: { close: () => void }) {
  const router = useRouter();
  const [text, setText] = useState('');
  const [all, setAll] = useState<Hit[] | null>(null);
  const [at, setAt] = useState(0);
  const [trouble, setTrouble] = useState(false);
  // Enter pressed before the list is there: acted on when it comes.
  const [wanted, setWanted] = useState(false);
  useEffect(() => {
    fetch('/api/palette')
      .then(async (r) => (r.ok ? setAll((await r.json()) as Hit[]) : setTrouble(true)))
      .catch(() => setTrouble(true));
  }, []);
  const hits = (all ?? []).filter((h) => foundIn(`${h.title} ${h.line}`, text)).slice(0, 9);
  const go = (hit: Hit | undefined) => {
    if (!hit) return;
    close();
    router.push(hit.href);
  };
  const first = wanted && all !== null ? hits[at]?.href : undefined;
  useEffect(() => {
    if (!first) return;
    close();
    router.push(first);
  }, [first, close, router]);
  return (
    <Modal show onHide={close} aria-label="Find">
      <ModalBody>
        <FormLabel htmlFor="find">Find a person, a checkout, an aeroplane, a page, or something to do</FormLabel>
        <FormControl
          id="find"
          className="mb-2"
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the finder is asked for by a key and is there to type in
          autoFocus
          value={text}
          role="combobox"
          aria-expanded
          aria-controls="find-hits"
          aria-activedescendant={hits[at] ? `hit-${at}` : undefined}
          onChange={(e) => {
            setText(e.target.value);
            setAt(0);
            setWanted(false);
          }}
          onKeyDown={(e) => {
            if (e.key === 'ArrowDown') setAt(Math.min(hits.length - 1, at + 1));
            else if (e.key === 'ArrowUp') setAt(Math.max(0, at - 1));
            else if (e.key === 'Enter') {
              if (all === null) setWanted(true);
              else go(hits[at]);
            } else return;
            e.preventDefault();
          }}
        />
        <div role="listbox" id="find-hits" aria-label="Found">
          {hits.map((h, i) => (
            // eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/interactive-supports-focus -- the focus stays in the field, whose arrows and Enter choose (aria-activedescendant)
            <div
              key={`${h.href}${h.title}`}
              id={`hit-${i}`}
              role="option"
              aria-selected={i === at}
              onClick={() => go(h)}
              className="px-2 py-2"
              style={{
                cursor: 'pointer',
                background: i === at ? 'var(--lagoon-wash)' : undefined,
                outline: i === at ? '2px solid var(--lagoon)' : undefined,
              }}
            >
              {h.title} <span className="soft">{h.line}</span>
            </div>
          ))}
        </div>
        {trouble ? (
          <p className="mb-0">The list cannot be read just now. Close this and use the menu.</p>
        ) : all && hits.length === 0 ? (
          <p className="mb-0">No result. Try part of a name or a registration.</p>
        ) : null}
      </ModalBody>
    </Modal>
  );
}
