export const unitSystems = ["us", "imperial", "metric"] as const;
