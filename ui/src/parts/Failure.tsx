/** What went wrong with a whole screen, in words, with a way on. */
export function Failure({ error, onRetry }: { error: Error; onRetry?: () => void }) {
  return (
    <div role="alert" className="m-4 border-2 border-ink bg-enamel p-4">
      <p className="font-semibold">{error.message}</p>
      {onRetry && (
        <button type="button" className="press mt-3" onClick={onRetry}>
          Try again
        </button>
      )}
    </div>
  );
}
