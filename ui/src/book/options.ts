import type { Catalogue } from "../api/client";
import type { Option } from "../parts/finding";

/** The recipes to choose from: one's own first. */
export function recipeOptions({ recipes, own_recipes }: Catalogue): Option[] {
  const own = (slug: string) => Number(slug in own_recipes);
  return [...recipes]
    .sort((a, b) => own(b.slug) - own(a.slug))
    .map((r) => ({
      slug: r.slug,
      name: r.name,
      says: r.looks,
      group: r.family,
      words: r.components.map((c) => c.name),
    }));
}

export const groundOptions = ({ grounds }: Catalogue) =>
  grounds.map((g) => ({ slug: g.slug, name: g.name, says: g.looks, hex: g.hex }));

export const techniqueOptions = (techniques: Catalogue["techniques"]): Option[] =>
  techniques.map((t) => ({ slug: t.slug, name: t.name, says: t.how }));
