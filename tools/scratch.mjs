import { chromium } from '@playwright/test';
const [,, base='http://localhost:4680', out='/tmp/shots', scheme='light', w='1280', h='800'] = process.argv;
import { mkdirSync } from 'node:fs'; mkdirSync(out,{recursive:true});
const b = await chromium.launch({executablePath:'/usr/bin/chromium',args:['--no-sandbox','--disable-gpu','--disable-quic','--disable-background-networking']});
const c = await b.newContext({viewport:{width:+w,height:+h},colorScheme:scheme});
const p = await c.newPage();
p.on('console',m=>{ if(['error','warning'].includes(m.type())) console.log(m.type(), m.text()); }); p.on('pageerror',e=>console.log('PAGEERROR',e.message));
await p.goto(base); await p.waitForTimeout(800); await p.screenshot({path:`${out}/signin.png`});
await p.getByRole('button',{name:/Ines/}).click(); await p.screenshot({path:`${out}/pin.png`});
for (const k of '2468') await p.keyboard.press(k); await p.keyboard.press('Enter');
await p.getByRole('heading',{level:1,name:/Dial in|Every|Go on/}).waitFor(); await p.waitForTimeout(500);
await p.screenshot({path:`${out}/home.png`, fullPage:+w<800});
await p.getByRole('link',{name:/To the bench/}).click(); if(await p.getByRole('heading',{name:/which group/}).count()) await p.getByRole('link',{name:'Group 1'}).click(); await p.getByRole('button',{name:/^Grind \d/}).waitFor(); await p.waitForTimeout(600);
await p.screenshot({path:`${out}/bench-before.png`, fullPage:+w<800});
const round = async (n)=>{
 await p.getByRole('button',{name:/^Grind \d/}).click(); await p.getByRole('button',{name:/^Keep [\d]/}).and(p.locator(':enabled')).waitFor(); await p.waitForTimeout(300);
 if(n===0) await p.screenshot({path:`${out}/bench-dose.png`});
 await p.getByRole('button',{name:/^Keep/}).click(); await p.getByRole('button',{name:/^Pull/}).waitFor(); await p.waitForTimeout(200);
 await p.evaluate(()=>document.activeElement?.blur()); await p.keyboard.press('Space');
 await p.waitForTimeout(4500); if(n===0) await p.screenshot({path:`${out}/bench-during.png`, fullPage:+w<800});
 for(;;){ const t=await p.locator('[aria-label="Shot"]').innerText(); const m=/in the cup\s*([\d.]+)/.exec(t); if(m&&+m[1]>=34) break; await p.waitForTimeout(30);} 
 await p.keyboard.press('Space'); await p.waitForTimeout(150); if(n===0) await p.screenshot({path:`${out}/bench-drip.png`});
 await p.waitForTimeout(1500); await p.screenshot({path:`${out}/bench-after${n}.png`, fullPage:+w<800});
};
if(process.argv[7]!=='short'){
for(let n=0;n<6;n++){ await round(n); const act=p.getByRole('button',{name:/^(Do it|Lock at)/}); if(await act.count()){ const l=await act.innerText(); await act.click(); await p.waitForTimeout(400); if(/Lock/.test(l)) break; } }
await p.screenshot({path:`${out}/bench-locked.png`, fullPage:+w<800});
console.log(await p.evaluate(()=>performance.getEntriesByName('stop-to-advice').map(e=>e.duration)));
}
await p.goto(base+'/journal'); await p.waitForTimeout(900); await p.screenshot({path:`${out}/journal.png`});
await b.close();
