'use client';
import { CircleQuestionMark } from 'lucide-react';
import { openHelp } from './events';

export function HelpButton() {
  return (
    <button
      type="button"
      onClick={openHelp}
      aria-label="Help and theme"
      style={{ background: 'none', border: 0, color: 'inherit', padding: 6, minWidth: 36, minHeight: 36 }}
    >
      <CircleQuestionMark size={22} aria-hidden />
    </button>
  );
}
