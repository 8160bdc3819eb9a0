import '~/assets/tokens.css'
import '~/assets/base.css'
import { createSSRApp } from 'vue'
import Stranger from './Stranger.vue'

/** Takes over the page that was drawn when the product was built: bin/door.ts. */
createSSRApp(Stranger).mount('#door')
// The letters come once the page answers: on a slow line they would take the script's place.
void import('./letters')
