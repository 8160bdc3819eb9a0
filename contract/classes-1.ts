import type { PowderFacts } from '~core/gypsum/powders'

/**
 * The classes of powder as the first model of setting (`layers-1`) had them: written into each run that was frozen by
 * it, which kept only the name of its class. Whatever is found out of a class later, those runs are not worked out
 * anew by it.
 */
export const CLASSES_OF_LAYERS_1: Readonly<Record<string, PowderFacts>> = {
  'plaster-of-paris': {
    family: 'plaster', crystal: 'beta', purity: 0.90, inertDensity: 2700,
    ratio: { recommended: 0.70, low: 0.60, high: 0.90 },
    settledFraction: 0.345, jammingFraction: 0.45, rate: 0.3376,
    yieldScale: 18, viscosityExponent: 4, handAir: 0.02,
    expansion: { usual: 0.25, low: 0.15, high: 0.4 },
  },
  'casting-plaster': {
    family: 'plaster', crystal: 'beta', purity: 0.92, inertDensity: 2700,
    ratio: { recommended: 0.67, low: 0.60, high: 0.75 },
    settledFraction: 0.352, jammingFraction: 0.46, rate: 0.2570,
    yieldScale: 18, viscosityExponent: 4, handAir: 0.02,
    expansion: { usual: 0.2, low: 0.15, high: 0.3 },
  },
  'pottery-plaster': {
    family: 'plaster', crystal: 'beta', purity: 0.93, inertDensity: 2700,
    ratio: { recommended: 0.70, low: 0.60, high: 0.80 },
    settledFraction: 0.345, jammingFraction: 0.47, rate: 0.3014,
    yieldScale: 20, viscosityExponent: 4.3, handAir: 0.02,
    expansion: { usual: 0.2, low: 0.15, high: 0.25 },
  },
  'gypsum-cement': {
    family: 'cement', crystal: 'alpha', purity: 0.93, inertDensity: 2700,
    ratio: { recommended: 0.42, low: 0.38, high: 0.48 },
    settledFraction: 0.475, jammingFraction: 0.54, rate: 0.1672,
    yieldScale: 11, viscosityExponent: 3.4, handAir: 0.02,
    expansion: { usual: 0.35, low: 0.25, high: 0.45 },
  },
  'high-strength-gypsum-cement': {
    family: 'cement', crystal: 'alpha', purity: 0.94, inertDensity: 2700,
    ratio: { recommended: 0.31, low: 0.28, high: 0.34 },
    settledFraction: 0.56, jammingFraction: 0.58, rate: 0.1790,
    yieldScale: 6, viscosityExponent: 2.5, handAir: 0.02,
    expansion: { usual: 0.22, low: 0.15, high: 0.3 },
  },
  'dental-type-2': {
    family: 'dental', crystal: 'beta', purity: 0.93, inertDensity: 2700,
    ratio: { recommended: 0.50, low: 0.45, high: 0.55 },
    settledFraction: 0.425, jammingFraction: 0.4769, rate: 0.3181,
    yieldScale: 12, viscosityExponent: 3, handAir: 0.02,
    expansion: { usual: 0.2, low: 0.06, high: 0.3 },
  },
  'dental-type-3': {
    family: 'dental', crystal: 'alpha', purity: 0.95, inertDensity: 2700,
    ratio: { recommended: 0.30, low: 0.27, high: 0.33 },
    settledFraction: 0.555, jammingFraction: 0.5853, rate: 0.4707,
    yieldScale: 5, viscosityExponent: 2.5, handAir: 0.01,
    expansion: { usual: 0.12, low: 0.02, high: 0.2 },
  },
  'dental-type-4': {
    family: 'dental', crystal: 'alpha', purity: 0.96, inertDensity: 2700,
    ratio: { recommended: 0.24, low: 0.22, high: 0.26 },
    settledFraction: 0.615, jammingFraction: 0.6280, rate: 0.3789,
    yieldScale: 5, viscosityExponent: 2.4, handAir: 0.01,
    expansion: { usual: 0.09, low: 0.02, high: 0.15 },
  },
  'dental-type-5': {
    family: 'dental', crystal: 'alpha', purity: 0.96, inertDensity: 2700,
    ratio: { recommended: 0.21, low: 0.18, high: 0.22 },
    settledFraction: 0.64, jammingFraction: 0.66, rate: 0.2963,
    yieldScale: 5, viscosityExponent: 2.3, handAir: 0.01,
    expansion: { usual: 0.25, low: 0.16, high: 0.3 },
  },
  'plaster-silica': {
    family: 'investment', crystal: 'beta', purity: 0.46, inertDensity: 2650,
    ratio: { recommended: 0.45, low: 0.38, high: 0.55 },
    settledFraction: 0.49, jammingFraction: 0.53, rate: 0.3893,
    yieldScale: 14, viscosityExponent: 3.6, handAir: 0.02,
    expansion: { usual: 0.2, low: 0.1, high: 0.4 }, strengthFactor: 0.45,
  },
}
