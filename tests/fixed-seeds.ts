import fc from 'fast-check'

/** What is drawn in the tests is drawn alike each time: fresh draws are the campaign's (bench/README.md). */
fc.configureGlobal({ seed: Number(process.env.CAMPAIGN_SEED) || 20261129 })
