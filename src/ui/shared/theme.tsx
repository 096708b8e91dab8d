'use client';
import Button from 'react-bootstrap/Button';
import { useEffect, useState } from 'react';

export const THEMES = ['day', 'dusk', 'sun'] as const;
export function ThemePicker() {
  const [theme, setTheme] = useState('day');
  useEffect(() => setTheme(document.documentElement.getAttribute('data-bs-theme') ?? 'day'), []);
  return (
    <div role="group" aria-label="Theme" className="d-flex gap-2 align-items-center">
      <span>Theme</span>
      {THEMES.map((t) => (
        <Button
          key={t}
          variant={t === theme ? 'primary' : 'outline-primary'}
          size="sm"
          aria-pressed={t === theme}
          onClick={() => {
            setTheme(t);
            document.documentElement.setAttribute('data-bs-theme', t);
            localStorage.setItem('jeito-theme', t);
          }}
        >
          {t}
        </Button>
      ))}
    </div>
  );
}
