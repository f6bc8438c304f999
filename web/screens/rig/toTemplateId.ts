/** "Sedge 18, ours" → "sedge-18-ours". */
export const toTemplateId = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60) || "template";
