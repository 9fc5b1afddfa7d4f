import { de } from './de';
import { en } from './en';
import { es } from './es';
import { fr } from './fr';
import { it } from './it';
import type { LanguageCode, PageLanguage } from './language';
import { nl } from './nl';

export const LANGUAGES: Readonly<Record<LanguageCode, PageLanguage>> = { en, de, fr, es, it, nl };
