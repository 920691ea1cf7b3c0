interface ChipProps {
  address: string;
  says: string;
  /** Shown until the next one is there. */
  old?: boolean;
  className?: string;
}

/** A picture of a finish with its bar of 50 mm. What it shows is an estimate, and said to be. */
export function Chip({ address, says, old = false, className = "" }: ChipProps) {
  if (!address)
    return (
      <div
        role="img"
        aria-label="The picture is being worked out"
        className={`aspect-square border-2 border-line bg-steel ${className}`}
      />
    );
  return (
    <img
      src={address}
      alt={says}
      className={`aspect-square border-[6px] border-grey object-cover ${old ? "opacity-60" : ""} ${className}`}
    />
  );
}

/** What a mix of the book makes, small: beside its name, and so without words of its own. */
export function RecipeChip({ recipe }: { recipe: string }) {
  return (
    <img
      src={`/api/look/recipes/${encodeURIComponent(recipe)}?px=96`}
      alt=""
      loading="lazy"
      className="aspect-square w-full border border-line bg-steel"
    />
  );
}
