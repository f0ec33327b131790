import '@fontsource-variable/source-sans-3'
import 'element-plus/theme-chalk/base.css'
import 'element-plus/theme-chalk/dark/css-vars.css'
import '../style.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { reportFaults } from './faults'
import { loadMissingPieces, takeAtOpening } from './updates'

const app = createApp(App).use(createPinia()).use(router)
reportFaults(app)
loadMissingPieces(router)
void takeAtOpening().catch(() => {})
app.mount('#app')
