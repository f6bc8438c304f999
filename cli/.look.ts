import { launchBrowser } from "./browser.ts";
import { startDemoProcess } from "./demoProcess.ts";
const demo = await startDemoProcess(); const browser = await launchBrowser();
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce", hasTouch: true });
const page = await context.newPage(); page.setDefaultTimeout(20000);
try {
await page.goto(`${demo.address}/sign-in`); await page.getByRole("button", { name: /Nessa Quill/ }).click(); await page.getByRole("list", { name: "Handovers today" }).waitFor();
await page.goto(demo.address + "/deliveries/d-w118/walk");
const start = page.getByRole("button", { name: "Start the walk" }); await start.or(page.locator("#topic")).first().waitFor(); if (await start.isVisible()) await start.click(); await page.locator("#topic").waitFor();
for (let i=0;i<7;i++){ await page.keyboard.press(i%5===4?"1":"3"); await page.waitForTimeout(150);}
for (const [w,h] of [[768,1024],[820,1180],[1024,768],[1180,820]] as const) { await page.setViewportSize({width:w,height:h}); await page.waitForTimeout(500); await page.screenshot({ path: `/tmp/look/walk-${w}.png` }); }
} catch (e) { console.error(e); await page.screenshot({ path: "/tmp/look/error.png" }); } finally { await browser.close(); await demo.stop(); }
