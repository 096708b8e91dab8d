'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import Feedback from 'react-bootstrap/Feedback';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { type ChangeEvent, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { sheetDifferences, fieldName, validateSheet } from '@/core/sheet';
import { effectiveSheet } from '@/core/plan';
import { type FormNode, type Path, misfit, putAt } from '@/domain/form-node';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { AerodromeDrawing } from '../shared/aerodrome-drawing';
import { Panel, Problems } from '../shared/parts';
import { Title } from '../shared/title';
import { DifferenceList, FindingList } from './findings';
import { FindingsStay, Reason } from './save-parts';
import { isPlain, NodeField, type Tools } from './fields';

interface Props {
  kind: 'airframe' | 'content';
  title: string;
  node: FormNode;
  value: unknown;
  version: number;
  dialUnit: string;
  /** The type under an airframe, so that its findings can be shown while editing. */
  type: TypeSheet | null;
  save: (form: {
    reason: string;
    value: unknown;
    baseVersion: number;
  }) => Promise<ActionResult<{ version: number; unchanged: boolean }>>;
  back: string;
  /** Drawn beside the fields while they are edited. */
  drawn?: 'aerodrome';
}

/** Everything on a sheet, section by section. The validator reads along; saving makes a new version with a reason. */
export function SheetEditor({ kind, title, node, value, version, dialUnit, type, save, back, drawn }: Props) {
  const router = useRouter();
  const draftKey = `jeito-draft:${kind}:${back}:${version}`;
  const [draft, setDraft] = useState(value);
  const [section, setSection] = useState('');
  const [reason, setReason] = useState('');
  const { tap, busy, problems: trouble } = useTap();
  useEffect(() => {
    const kept = sessionStorage.getItem(draftKey);
    if (kept) setDraft(JSON.parse(kept));
  }, [draftKey]);
  const keep = (next: unknown) => {
    setDraft(next);
    sessionStorage.setItem(draftKey, JSON.stringify(next));
  };
  const set = (path: Path, x: unknown) => keep(putAt(draft, path, x));
  const settled = useDeferredValue(draft);
  const findings = useMemo(() => {
    if (kind === 'content') return [];
    try {
      return validateSheet(effectiveSheet(type as TypeSheet, settled as Airframe));
    } catch {
      return null;
    }
  }, [settled, kind, type]);
  const differences = useMemo(() => sheetDifferences(value, settled, dialUnit), [value, settled, dialUnit]);
  const problems = new Map(trouble.filter((p) => p.path.startsWith('sheet.')).map((p) => [p.path.slice(6), p.message]));
  const fields = node.kind === 'object' ? node.fields.filter((f) => f.node.kind !== 'fixed') : [];
  const sections = ['general', ...fields.filter((f) => !isPlain(f.node)).map((f) => f.key)];
  const now = section === '' ? 'general' : section;
  const send = async () => {
    await tap(() => save({ reason, value: draft, baseVersion: version }), {
      refused: ({ problems }) => {
        const first = problems.find((p) => p.path.startsWith('sheet.'))?.path.split('.')[1];
        if (first) setSection(sections.includes(first) ? first : 'general');
      },
      done: () => {
        sessionStorage.removeItem(draftKey);
        router.push(back);
        router.refresh();
      },
    });
  };
  const tools: Tools = {
    set,
    problems,
    dialUnit,
    absent: kind === 'content' ? 'none' : 'not on the sheet',
    reference: null,
  };
  const reasonProblem = trouble.find((p) => p.path === 'reason')?.message;
  return (
    <>
      <Title
        title={title}
        line={`From version ${version}. Saving makes version ${version + 1}; checkouts keep theirs until they are updated.`}
      />
      <Problems
        problems={trouble.filter((p) => !p.path.startsWith('sheet.') && p.path !== 'reason')}
        title="Not saved"
      />
      {problems.size > 0 ? (
        <div className="trouble mb-3" role="alert">
          <strong>Not saved: {problems.size === 1 ? 'one field' : `${problems.size} fields`} to correct</strong>
          <ul>
            {[...problems].slice(0, 6).map(([path, m]) => (
              <li key={path}>
                <Button
                  variant="link"
                  size="sm"
                  className="p-0"
                  onClick={() =>
                    setSection(sections.includes(path.split('.')[0] ?? '') ? (path.split('.')[0] ?? '') : 'general')
                  }
                >
                  {path
                    .split('.')
                    .map((p) => fieldName(p))
                    .join(', ')}
                </Button>
                : {m}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <div className="editor">
        <nav aria-label="Sections">
          <ul>
            {sections.map((s) => (
              <li key={s}>
                <button
                  type="button"
                  className={`secbtn${now === s ? ' on' : ''}`}
                  aria-current={now === s ? 'true' : undefined}
                  onClick={() => setSection(s)}
                >
                  {s === 'general' ? 'in general' : fieldName(s)}
                  {[...problems.keys()].some((p) => p.startsWith(`${s}.`)) ? ' *' : ''}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <Panel title={now === 'general' ? 'In general' : fieldName(now)}>
          <div className="d-grid gap-2">
            {now === 'general'
              ? fields
                  .filter((f) => isPlain(f.node))
                  .map((f) => (
                    <NodeField
                      key={f.key}
                      node={f.node}
                      path={[f.key]}
                      value={(draft as Record<string, unknown>)[f.key]}
                      tools={tools}
                    />
                  ))
              : fields
                  .filter((f) => f.key === now)
                  .map((f) => (
                    <NodeField
                      key={f.key}
                      node={f.node}
                      path={[f.key]}
                      value={(draft as Record<string, unknown>)[f.key]}
                      tools={tools}
                      bare
                    />
                  ))}
          </div>
        </Panel>
        <div className="grid" style={{ alignContent: 'start' }}>
          {drawn === 'aerodrome' ? (
            <Panel title="Preview">
              <AerodromeDrawing
                narrow
                runways={(settled as { runways: Parameters<typeof AerodromeDrawing>[0]['runways'] }).runways ?? []}
                name={(settled as { name?: string }).name ?? ''}
              />
            </Panel>
          ) : null}
          {kind === 'content' ? <ImportFile node={node} take={keep} /> : null}
          {kind === 'content' ? null : (
            <Panel title="Consistency check">
              {findings === null ? (
                <p className="soft mb-0">A field is empty. Complete it to check the sheet.</p>
              ) : (
                <FindingList
                  findings={findings}
                  go={(path) => {
                    const first = path.split('.')[0] ?? '';
                    setSection(sections.includes(first) ? first : 'general');
                  }}
                />
              )}
            </Panel>
          )}
          <Panel title="Changes">
            {differences.length === 0 ? (
              <p className="soft mb-0">Nothing yet.</p>
            ) : (
              <DifferenceList differences={differences} />
            )}
          </Panel>
          <Panel title="Save">
            <Reason value={reason} problem={reasonProblem} change={setReason} />
            <Button
              variant="primary"
              className="mt-2"
              disabled={busy || differences.length === 0}
              onClick={() => void send()}
            >
              {busy ? 'Saving' : `Save as version ${version + 1}`}
            </Button>
            <FindingsStay count={findings?.length ?? 0} />
          </Panel>
        </div>
      </div>
    </>
  );
}

/** Takes an exported file as the draft: its differences show before anything is saved. */
function ImportFile({ node, take }: { node: FormNode; take: (value: unknown) => void }) {
  const [problem, setProblem] = useState('');
  return (
    <Panel title="From a file">
      <FormLabel htmlFor="import">A changed export</FormLabel>
      <FormControl
        id="import"
        type="file"
        accept=".json,application/json"
        size="sm"
        onChange={(e: ChangeEvent<HTMLInputElement>) => {
          const file = e.target.files?.[0];
          void file
            ?.text()
            .then((text) => {
              const parsed = JSON.parse(text) as { schema?: string; body?: unknown };
              const body: unknown = parsed.schema === 'content/1' ? parsed.body : parsed;
              const wrong = misfit(node, body);
              if (wrong !== null)
                return setProblem(
                  `This file does not match what is edited here (${wrong}). Export it here first, change that file, and bring it back.`,
                );
              take(body);
              setProblem('');
            })
            .catch(() => setProblem('This is not JSON. Export it here first, change that file, and bring it back.'));
        }}
      />
      {problem ? (
        <Feedback type="invalid" className="d-block" role="alert">
          {problem}
        </Feedback>
      ) : null}
    </Panel>
  );
}
