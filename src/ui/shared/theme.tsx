'use client';
import { useEffect, useState } from 'react';

export const THEMES = ['day', 'dusk', 'sun'] as const;
export function ThemePicker() {
  const [theme, setTheme] = useState('day');
  useEffect(() => setTheme(document.documentElement.getAttribute('data-bs-theme') ?? 'day'), []);
  return (
    <div role="group" aria-label="Theme" className="d-flex gap-2 align-items-center">
      <span>Theme</span>
      {THEMES.map((t) => (
        <button
          key={t}
          type="button"
          className={`btn btn-sm ${t === theme ? 'btn-primary' : 'btn-outline-primary'}`}
          aria-pressed={t === theme}
          onClick={() => {
            setTheme(t);
            document.documentElement.setAttribute('data-bs-theme', t);
            localStorage.setItem('jeito-theme', t);
          }}
        >
          {t}
        </button>
      ))}
    </div>
  );
}
