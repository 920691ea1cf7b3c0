/** What each place is for, in a few words: its help, wherever one is. */
export const ABOUT = [
  {
    of: "new",
    name: "New job",
    says: "Say what the piece is, what is on it now, and what it should become. What you leave out is asked for later. Sizes that are usual say so until you measure.",
  },
  {
    of: "piece",
    name: "Piece",
    says: "Type sizes as you say them, at the field or on the drawing. Zones are surfaces that get one treatment; what it must stand decides which sealer it needs.",
  },
  {
    of: "finish",
    name: "Finish",
    says: "The layers from the ground up. Press one to change it, or to lay it out in stripes, checks, a border or a stencil. What would go wrong is said beside them, with what to do about it; what is meant so can be accepted, what can hurt somebody cannot.",
  },
  {
    of: "look",
    name: "Look",
    says: "What it will look like, wet and dry, and how far off that may be. Keep looks side by side, match a colour from your jars, plan a test board.",
  },
  {
    of: "mix",
    name: "Mix",
    says: "How much of each part of one layer, in the measures you own. Press a number to see why it is what it is.",
  },
  {
    of: "sheet",
    name: "Sheet",
    says: "Every pot of the job in the order it is mixed, what is pooled, and what would change if. Cards and labels are printed here.",
  },
  {
    of: "steps",
    name: "Steps",
    says: "The whole job to read at the bench: what to lay out, what right looks like, how long to leave it, what to take care of.",
  },
  {
    of: "days",
    name: "Days",
    says: "On which evening to do what, for several jobs together, in the hours you have. Move it, promise a date, and see what has to give.",
  },
  {
    of: "bench",
    name: "At the bench",
    says: "One step at a time, large enough for wet hands. What you really poured is written down, so that the next pot matches.",
  },
  {
    of: "book",
    name: "Recipes",
    says: "Every mix with its shares both ways, its limits and its life. Copy one to make it yours.",
  },
  {
    of: "shelf",
    name: "Shelf",
    says: "What you have, and what its label says: a label beats a starting value, a weighing beats both.",
  },
  {
    of: "buying",
    name: "Buying",
    says: "What the jobs you are at take, beyond what stands there, in the cheapest packs. Tick it in the shop, also with no connection: it stands on the shelf then, with what it cost.",
  },
  {
    of: "cost",
    name: "Cost",
    says: "What the piece costs, line by line, each with its working: the least it can be sold for. What has no price is named, and never counted as nothing.",
  },
  {
    of: "kit",
    name: "Kit",
    says: "The spoons, cups, jugs and scale you own. Type them in one line; amounts come as fillings of these.",
  },
  {
    of: "log",
    name: "Log",
    says: "What was really mixed, to be made again; what is left in jars; and what all of it teaches.",
  },
] as const;

/** The part of the help that a place is about. */
export function aboutOf(path: string): string {
  const parts = path.split("/").filter(Boolean);
  const at = parts[0] === "jobs" ? (parts[2] ?? "finish") : parts[0];
  return ABOUT.some((one) => one.of === at) ? `/help#${at}` : "/help";
}
