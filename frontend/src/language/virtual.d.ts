/** What the build makes of the catalogues (``texts.js``). */
declare module "virtual:languages" {
  export const LANGUAGES: Record<string, { locale: string; load: () => Promise<{ default: Record<string, unknown> }> }>;
}
