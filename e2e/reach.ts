import type { Page } from '@playwright/test';

/** What a page fails for hands and eyes, as measured in the page; empty lists mean nothing was found. */
export interface Reach {
  title: string;
  /** Pixels the document is wider than the window, and what stands furthest out. */
  over: number;
  widest: string;
  /** Controls that are smaller than the least size and have no room around them. */
  small: string[];
  /** Text under 12 px, drawings under 11 px as drawn. */
  tiny: string[];
  /** Tables without a name, header cells without a scope. */
  tables: string[];
  /** Text that is cut by the box it stands in. */
  cut: string[];
}

/**
 * Measures the page as it stands. A control is a target by WCAG 2.5.8: at least `least` px both ways, or nothing else to
 * press within a circle of that diameter about its middle; a link in a sentence is exempt, as there.
 */
export const reachOf = (page: Page, least: number): Promise<Reach> =>
  page.evaluate((px) => {
    const root = document.documentElement;
    const wide = root.clientWidth;
    const shown = (e: Element): boolean => {
      if (!e.checkVisibility({ visibilityProperty: true, opacityProperty: true })) return false;
      const r = e.getBoundingClientRect();
      return r.width > 1 && r.height > 1;
    };
    const name = (e: Element): string => {
      const words = (e.getAttribute('aria-label') ?? e.textContent ?? '').trim().replace(/\s+/g, ' ').slice(0, 40);
      const cls = typeof e.className === 'string' ? e.className.split(' ').slice(0, 3).join('.') : '';
      return `${e.tagName.toLowerCase()}${cls ? '.' + cls : ''} "${words}"`;
    };
    /** Inside a box that scrolls by itself nothing widens the page. */
    const boxed = (e: Element): boolean => {
      for (let p = e.parentElement; p && p !== document.body; p = p.parentElement)
        if (/auto|scroll|hidden|clip/.test(getComputedStyle(p).overflowX)) return true;
      return false;
    };
    let widest = '';
    let far = wide;
    const cut: string[] = [];
    const tiny = new Set<string>();
    for (const e of document.body.querySelectorAll('*')) {
      if (!shown(e)) continue;
      const r = e.getBoundingClientRect();
      if (r.right > far + 0.5 && !boxed(e)) {
        far = r.right;
        widest = `${name(e)} to ${Math.round(r.right)}`;
      }
      const style = getComputedStyle(e);
      const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent?.trim());
      if (!own) continue;
      if (e instanceof SVGElement) {
        const m = (e as SVGGraphicsElement).getScreenCTM?.();
        const size = parseFloat(style.fontSize) * (m ? Math.hypot(m.b, m.d) : 1);
        if (size < 10.95) tiny.add(`${name(e)} ${size.toFixed(1)} px drawn`);
      } else {
        const size = parseFloat(style.fontSize);
        if (size < 11.95 && style.position !== 'absolute') tiny.add(`${name(e)} ${size.toFixed(1)} px`);
        if (
          /hidden|clip/.test(style.overflowX) &&
          e.scrollWidth > e.clientWidth + 1 &&
          // A block of the schedule is a button that says all of it, and shows it when touched.
          !e.closest('button[aria-label]') &&
          !/^(SELECT|OPTION|INPUT|TEXTAREA)$/.test(e.tagName)
        )
          cut.push(name(e));
      }
    }
    for (const e of document.querySelectorAll('button, .btn'))
      if (shown(e) && e.scrollWidth > e.clientWidth + 1 && !e.closest('.sch')) cut.push(`${name(e)} spills`);
    for (const e of document.querySelectorAll('.when > input[type=text]'))
      if (shown(e) && e.scrollWidth > e.clientWidth + 1) cut.push(`${name(e)} date`);
    const controls = [
      ...document.querySelectorAll(
        'a[href], button, input, select, textarea, summary, [role=button], [role=checkbox], [role=tab], [tabindex="0"]',
      ),
    ].filter((e) => shown(e) && !(e as HTMLButtonElement).disabled);
    /** A box with a label is pressed on the label too. */
    const boxOf = (e: Element): DOMRect => {
      const own = e.getBoundingClientRect();
      const label = (e as HTMLInputElement).labels?.[0];
      if (!label || !/checkbox|radio/.test((e as HTMLInputElement).type)) return own;
      const l = label.getBoundingClientRect();
      const x = Math.min(own.left, l.left);
      const y = Math.min(own.top, l.top);
      return new DOMRect(x, y, Math.max(own.right, l.right) - x, Math.max(own.bottom, l.bottom) - y);
    };
    const boxes = controls.map((e) => ({ e, r: boxOf(e) }));
    const inSentence = (e: Element): boolean => {
      if (e.tagName !== 'A' && e.tagName !== 'BUTTON') return false;
      const style = getComputedStyle(e);
      if (!style.display.startsWith('inline') || style.display === 'inline-flex') return false;
      const p = e.parentElement;
      return !!p && [...p.childNodes].some((n) => n !== e && !!n.textContent?.trim() && n.nodeType === 3);
    };
    const small: string[] = [];
    for (const { e, r } of boxes) {
      if (r.width >= px - 0.5 && r.height >= px - 0.5) continue;
      if (inSentence(e)) continue;
      if (e.closest('canvas, .echarts')) continue;
      const x = r.left + r.width / 2;
      const y = r.top + r.height / 2;
      const near =
        px > 24 ||
        boxes.some(({ e: o, r: b }) => {
          if (o === e || o.contains(e) || e.contains(o)) return false;
          const dx = Math.max(b.left - x, 0, x - b.right);
          const dy = Math.max(b.top - y, 0, y - b.bottom);
          return Math.hypot(dx, dy) < px / 2;
        });
      if (near) small.push(`${name(e)} ${Math.round(r.width)}x${Math.round(r.height)}`);
    }
    const tables: string[] = [];
    for (const t of document.querySelectorAll('table')) {
      if (!shown(t)) continue;
      if (!t.caption && !t.getAttribute('aria-label') && !t.getAttribute('aria-labelledby'))
        tables.push(`no caption: ${name(t)}`);
      for (const th of t.querySelectorAll('th')) if (!th.scope) tables.push(`no scope: ${name(th)}`);
    }
    return {
      title: document.title,
      over: Math.max(0, root.scrollWidth - wide),
      widest,
      small,
      tiny: [...tiny],
      tables,
      cut,
    };
  }, least);
