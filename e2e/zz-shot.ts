import { launchBrowser, Installation } from './support';
import { createServer } from 'node:http';
async function main(){
const t = await Installation.start(); const b = await launchBrowser();
let page = await b.newPage(); page.setDefaultTimeout(60000);
page.on('console',m=>{ if(m.type()==='error') console.log('console:',m.text()); }); page.on('pageerror',e=>console.log('pageerror',(e as Error).message));
// a tiny remote: POST js to run with page
createServer((req,res)=>{ let s=''; req.on('data',d=>s+=d); req.on('end',async()=>{ try { const f=new Function('page','t','b','return (async()=>{'+s+'})()'); if(page.isClosed()) page=await b.newPage(); const r=await f(page,t,b); res.end(JSON.stringify(r)??'ok'); } catch(e){ res.end('ERR '+(e as Error).stack); } }); }).listen(4999,'127.0.0.1');
console.log('ready',t.address);
}
main();
