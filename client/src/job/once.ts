/** The rhythm of work that is done once. */
export const once = "00000000-0000-7000-8000-000000000001";
