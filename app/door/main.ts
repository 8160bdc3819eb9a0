import '@fontsource-variable/archivo/wdth.css'
import '@fontsource-variable/martian-mono/wdth.css'
import '~/assets/tokens.css'
import '~/assets/base.css'
import { createSSRApp } from 'vue'
import Stranger from './Stranger.vue'

/** Takes over the page that was drawn when the product was built: bin/door.ts. */
createSSRApp(Stranger).mount('#door')
