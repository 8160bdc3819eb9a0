import '~/assets/tokens.css'
import '~/assets/base.css'
import { createSSRApp } from 'vue'
import { whenIdle } from '~/features/door/idle'
import Stranger from './Stranger.vue'

/** Takes over the page that was drawn when the product was built: bin/door.ts. */
createSSRApp(Stranger).mount('#door')
// The letters come once the page answers: on a slow line they would take the script's place, and all is laid out anew.
whenIdle(() => void import('./letters'), 2000)
