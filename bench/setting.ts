import { FINE, runSetting, settingMoments } from '../core/setting/hydration'
import type { SettingInput } from '../core/setting/setting-mix'
import { powderClass } from '../core/gypsum/powders'
import { labInput, usualMix } from '../core/lab/mix'
import { centreMoments, forecast } from '../core/setting/moments'
import { methodOfLines } from '../tests/published/method-of-lines'
import { measure } from './measure'

/**
 * The setting model: one run of three hours with twenty shells beside a general-purpose integrator on the same
 * equations, and what the screens ask for.
 */
const input: SettingInput = {
  powder: powderClass('plaster-of-paris'),
  ratio: 0.7,
  waterTemperature: 18,
  roomTemperature: 20,
  stir: { tool: 'hand', minutes: 2 },
  stirFrom: 120,
  section: 0.025,
  mould: 'silicone',
}
const ours = measure(
  'setting run of three hours, 20 shells (target 2.5 ms)',
  () => runSetting(input, undefined, FINE, 10_800),
  200,
)
const theirs = measure(
  'the same, general-purpose integrator, tolerance 1e-8, to lost gloss',
  () => methodOfLines(input, FINE.cells, 10_800, 1e-8),
  20,
)
const exact = methodOfLines(input, FINE.cells, 10_800, 1e-9), m = settingMoments(input)
console.log(
  `ratio ${(theirs / ours).toFixed(0)}; difference: pour-by ${
    (100 * (m.pourBy / exact.pourBy - 1)).toFixed(3)
  } %, gloss ${(100 * (m.glossGone / exact.glossGone - 1)).toFixed(3)} %`,
)
const mix = labInput(usualMix('plaster-of-paris'))
measure('lab: centre values of one mix', () => centreMoments(mix), 200)
measure('lab: ranges of one mix, 200 samples (in the worker; target 300 ms)', () => forecast(mix), 20)
