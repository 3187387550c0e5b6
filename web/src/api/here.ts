/** Whether this browser looks at the demo workshop: then the server answers from the demo, and what waits here is apart too. */
export const inDemo = typeof document !== 'undefined' && /(^|;\s*)kelbrast-look=demo(;|$)/.test(document.cookie);
/** What keys of this browser's store begin with: nothing of the demo is ever delivered to the shop's own data. */
export const HERE = inDemo ? 'kelbrast.demo' : 'kelbrast';
