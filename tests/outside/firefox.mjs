// The main way of a teacher in Firefox, driven by the W3C's WebDriver BiDi: prints what is seen on it, as JSON.
import puppeteer from 'puppeteer-core'

const [link, base] = process.argv.slice(2)
const browser = await puppeteer.launch({ browser: 'firefox', executablePath: '/usr/bin/firefox-esr', headless: true })
const seen = { complaints: [] }
try {
  const page = await browser.newPage()
  page.setDefaultTimeout(60_000)
  await page.setViewport({ width: 1280, height: 800 })
  page.on('pageerror', (error) => seen.complaints.push(String(error)))
  await page.goto(link)
  await page.evaluate(() => localStorage.setItem('keen-slate-walked', 'true'))
  const text = (selector) => page.$eval(selector, (one) => one.textContent.trim())
  const press = async (selector) => (await page.waitForSelector(selector)).click()

  await press('[aria-label="Standard"]')
  await page.waitForSelector('.p-select-option')
  await page.keyboard.type('4.NF.B.3c')
  await page.waitForFunction(() => document.querySelectorAll('.p-select-option').length === 1)
  await press('.p-select-option')
  await press('.begin button[type=submit]')
  await page.waitForFunction(() => document.querySelectorAll('.step[data-id]').length === 8)
  await page.type('#entry', '7 1/4 - 3 5/6')
  await page.waitForSelector('.paper[data-pencil=true] .row[aria-label="three and five twelfths"]')
  seen.pencil = await text('.in-pencil')
  await page.keyboard.press('Enter')
  await page.waitForFunction(() => document.querySelectorAll('.step[data-id]').length === 9)
  await page.waitForSelector('.paper[data-pencil=false] .row[aria-label="three and five twelfths"]')
  seen.square = await page.$eval('.paper .cell', (one) => one.getBoundingClientRect().width)
  seen.estimate = await text('.margin .about')
  await page.goto(page.url().replace('/bench/', '/wall/'))
  await page.waitForSelector('li.line')
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageDown')
  await page.waitForFunction(() => document.querySelectorAll('li.line').length === 4)
  seen.wall = await page.$eval('li.line:last-child .row', (one) => one.getAttribute('aria-label'))
  await page.goto(base + new URL(page.url()).pathname.replace(/\/wall\/([^/]+).*/, '/handout/$1'))
  await page.waitForSelector('.pages img')
  seen.pages = await page.$eval('.pages img', (one) => one.decode().then(() => one.naturalWidth > 100))
} finally {
  await browser.close()
}
console.log(JSON.stringify(seen))
