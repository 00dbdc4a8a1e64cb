/** What a shop does with old electrolytics when nothing speaks against it. */

export const CAPACITOR_SCHOOLS = ["replace", "test", "reform"] as const;
export type CapacitorSchool = (typeof CAPACITOR_SCHOOLS)[number];

/** As the settings and the table say it. */
export const SCHOOL_WORDS: Record<CapacitorSchool, string> = {
  replace: "replace by age",
  test: "test and keep",
  reform: "reform",
};
