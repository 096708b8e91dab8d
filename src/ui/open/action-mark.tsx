/** Drop, add or same: a word and a shape, never colour alone. */
export function ActionMark({ action, opposite }: { action: 'drop' | 'add' | 'same'; opposite: boolean }) {
  return (
    <span className={`action-mark a-${opposite ? 'opposite' : action}`}>
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden>
        {action === 'drop' ? (
          <path d="M4 4l10 10M14 4L4 14" stroke="currentColor" strokeWidth={opposite ? 3.4 : 2} />
        ) : action === 'add' ? (
          <path d="M9 3v12M3 9h12" stroke="currentColor" strokeWidth="2" />
        ) : (
          <path d="M3 7h12M3 11h12" stroke="currentColor" strokeWidth="2" />
        )}
      </svg>
      {opposite ? 'drop: opposite' : action}
    </span>
  );
}
