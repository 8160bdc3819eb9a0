import { chromium } from '@playwright/test'
const base='http://127.0.0.1:4780', [,, w='1280', h='900', out='/tmp/t.png', which='0', wait='6000']=process.argv
const browser = await chromium.launch({executablePath:'/usr/bin/chromium',args:['--no-sandbox','--disable-background-networking','--disable-quic']})
const page = await browser.newPage({ viewport: { width: +w, height: +h } })
page.on('console',m=>m.type()==='error'&&console.log('console',m.text())); page.on('pageerror',e=>console.log('error',e.message))
await page.goto(`${base}/sign-in`)
await page.getByRole('button', { name: 'Enter the demo workshop' }).click()
await page.getByRole('region', { name: 'On the table' }).waitFor()
await page.goto(`${base}/plan`); await page.waitForTimeout(1500)
if (which==='list') { await page.screenshot({path:out}); process.exit() }
await page.locator('section.orders a').nth(+which).click()
await page.waitForTimeout(+wait)
console.log(await page.locator('.verdict').textContent().catch(()=>'none'), '|', await page.locator('progress').count())
await page.screenshot({path:out,fullPage:true})
await browser.close()
