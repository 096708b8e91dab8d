'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, rectSortingStrategy, sortableKeyboardCoordinates, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, EyeOff, GripVertical, Trash2 } from 'lucide-react';
import { type ReactNode, memo, useState } from 'react';
import { BLOCKS, type BlockMeta, type Layout, completeLayout, moved } from './arrange';
import { FoldingPanel } from '../shared/folding';
import { ANSWERS } from './answers';
import { BLOCK_BODIES, type Shown } from './blocks';
import { newId } from '../shared/new-id';

export type { BriefFacts } from './blocks';
const META = new Map(BLOCKS.map((b) => [b.id, b]));
interface Arranging {
  change: (layout: Layout) => void;
  saveTemplate: (() => Promise<string>) | null;
}

/**
 * The blocks of a brief in the order chosen, warnings first. With `arranging` each block can be moved, hidden or added
 * to.
 */
export const BriefPanels = memo(function BriefPanels({
  shown,
  arranging,
}: {
  shown: Shown;
  arranging: Arranging | null;
}) {
  const layout = completeLayout(shown.choices.layout);
  const { result } = shown;
  const visible = layout.order.filter(
    (id) =>
      !layout.hidden.includes(id) &&
      (id !== 'second' || shown.choices.second !== null || arranging) &&
      (id !== 'one-engine' || shown.sheet.twin || arranging) &&
      (id !== 'models' || (shown.choices.models ?? []).length > 0) &&
      (id !== 'plan' || shown.choices.plan !== undefined || arranging),
  );
  const own = (id: string) => layout.own.find((o) => o.id === id);
  const meta = (id: string): BlockMeta => META.get(id) ?? { id, title: own(id)?.title ?? id, wide: 'third' };
  const water = result.runways.find((r) => r.ident === shown.choices.runwayEnd)?.surface === 'water';
  const heading = (id: string): string =>
    id === 'wind'
      ? `${water ? 'Water lane' : 'Runway'} ${shown.choices.runwayEnd} and the wind`
      : id === 'runway' && water
        ? 'Water needed'
        : meta(id).title;
  const body = (id: string): ReactNode => {
    const mine = own(id);
    return mine ? (
      <p className="mb-0" style={{ whiteSpace: 'pre-line' }}>
        {mine.text}
      </p>
    ) : (
      BLOCK_BODIES[id]?.(shown)
    );
  };
  return (
    <>
      {result.warnings.length > 0 ? (
        <div className="trouble" role="status" aria-label="Warnings">
          <strong>Check first</strong>
          <ul>
            {result.warnings.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        </div>
      ) : null}
      {arranging ? (
        <Arrange layout={layout} visible={visible} meta={meta} body={body} arranging={arranging} />
      ) : (
        <div className="blocks">
          {visible.map((id) => (
            <FoldingPanel
              key={id}
              name={`brief/${id}`}
              className={`b-${meta(id).wide}`}
              label={meta(id).title}
              title={heading(id)}
              answer={ANSWERS[id]?.(shown)}
            >
              {body(id)}
            </FoldingPanel>
          ))}
        </div>
      )}
    </>
  );
});

function Arrange({
  layout,
  visible,
  meta,
  body,
  arranging,
}: {
  layout: Layout;
  visible: string[];
  meta: (id: string) => BlockMeta;
  body: (id: string) => ReactNode;
  arranging: Arranging;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const [title, setTitle] = useState('');
  const [text, setText] = useState('');
  const [word, setWord] = useState('');
  const put = (id: string, to: number) => arranging.change({ ...layout, order: moved(layout.order, id, to) });
  const add = () => {
    if (title.trim() === '' || text.trim() === '') return setWord('Give the item a title and a text.');
    const id = `own-${newId().slice(0, 8)}`;
    arranging.change({
      ...layout,
      order: [id, ...layout.order],
      own: [...layout.own, { id, title: title.trim().slice(0, 60), text: text.trim().slice(0, 600) }],
    });
    setTitle('');
    setText('');
    setWord(`“${title.trim()}” added at the top.`);
  };
  return (
    <>
      <div className="panel">
        <h2>Arrange this brief</h2>
        <p className="mb-2">
          Drag a block by its handle, or focus the handle and use space and the arrows. Hidden blocks come back from
          here.
        </p>
        <div className="d-flex flex-wrap gap-2 mb-2">
          {layout.hidden.map((id) => (
            <Button
              key={id}
              variant="outline-primary"
              size="sm"
              onClick={() => arranging.change({ ...layout, hidden: layout.hidden.filter((h) => h !== id) })}
            >
              Show {meta(id).title.toLowerCase()}
            </Button>
          ))}
        </div>
        <div
          className="d-grid gap-2"
          style={{ gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 2fr) auto auto', alignItems: 'end' }}
        >
          <div>
            <FormLabel htmlFor="own-title">Own item</FormLabel>
            <FormControl id="own-title" value={title} maxLength={60} onChange={(e) => setTitle(e.target.value)} />
          </div>
          <div>
            <FormLabel htmlFor="own-text">Text</FormLabel>
            <FormControl id="own-text" value={text} maxLength={600} onChange={(e) => setText(e.target.value)} />
          </div>
          <Button variant="outline-primary" onClick={add}>
            Add
          </Button>
          {arranging.saveTemplate ? (
            <Button variant="outline-primary" onClick={() => void arranging.saveTemplate?.().then(setWord)}>
              Save as school order
            </Button>
          ) : null}
        </div>
        <div role="status" className="soft small" style={{ minHeight: 20 }}>
          {word}
        </div>
      </div>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (over && active.id !== over.id) put(String(active.id), layout.order.indexOf(String(over.id)));
        }}
      >
        <SortableContext items={visible} strategy={rectSortingStrategy}>
          <div className="blocks">
            {visible.map((id) => (
              <Movable
                key={id}
                id={id}
                meta={meta(id)}
                up={() => put(id, Math.max(0, layout.order.indexOf(visible[visible.indexOf(id) - 1] ?? id)))}
                down={() => put(id, layout.order.indexOf(visible[visible.indexOf(id) + 1] ?? id))}
                hide={
                  id.startsWith('own-')
                    ? () =>
                        arranging.change({
                          ...layout,
                          order: layout.order.filter((o) => o !== id),
                          own: layout.own.filter((o) => o.id !== id),
                        })
                    : () => arranging.change({ ...layout, hidden: [...layout.hidden, id] })
                }
              >
                {body(id)}
              </Movable>
            ))}
          </div>
        </SortableContext>
      </DndContext>
    </>
  );
}

function Movable({
  id,
  meta,
  up,
  down,
  hide,
  children,
}: {
  id: string;
  meta: BlockMeta;
  up: () => void;
  down: () => void;
  hide: () => void;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  const own = id.startsWith('own-');
  return (
    <section
      ref={setNodeRef}
      className={`panel b-${meta.wide}${isDragging ? ' dragging' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={meta.title}
    >
      <div className="d-flex align-items-center gap-1 mb-2">
        <Button
          ref={setActivatorNodeRef}
          variant=""
          size="sm"
          className="grab"
          aria-label={`Move ${meta.title}`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={18} aria-hidden />
        </Button>
        <h2 className="mb-0" style={{ flex: 1 }}>
          {meta.title}
        </h2>
        <Button variant="" size="sm" aria-label={`${meta.title} up`} onClick={up}>
          <ArrowUp size={18} aria-hidden />
        </Button>
        <Button variant="" size="sm" aria-label={`${meta.title} down`} onClick={down}>
          <ArrowDown size={18} aria-hidden />
        </Button>
        <Button variant="" size="sm" aria-label={own ? `Remove ${meta.title}` : `Hide ${meta.title}`} onClick={hide}>
          {own ? <Trash2 size={18} aria-hidden /> : <EyeOff size={18} aria-hidden />}
        </Button>
      </div>
      {children}
    </section>
  );
}
