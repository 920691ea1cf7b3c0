export const WAITS = [
  { slug: "", name: "as soon as it may follow" },
  { slug: "12", name: "overnight" },
  { slug: "24", name: "a day" },
  { slug: "48", name: "two days" },
  { slug: "72", name: "three days" },
  { slug: "168", name: "a week" },
  { slug: "672", name: "four weeks" },
];
