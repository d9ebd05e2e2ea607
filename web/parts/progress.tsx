/** How far a job has come; without a total it only says that it is under way. */
export function Progress({ label, done, total }: { label: string; done: number; total: number }) {
  const share = total > 0 ? done / total : 0;
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={total || undefined}
      aria-valuenow={total > 0 ? done : undefined}
      className="h-2 w-full shrink-0 border border-edge"
    >
      <div className="h-full bg-blue transition-[width]" style={{ width: `${Math.max(2, share * 100)}%` }} />
    </div>
  );
}
