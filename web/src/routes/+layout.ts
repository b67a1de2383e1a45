// Kerbe is an application, not a set of pages: it draws and computes in the browser.
export const ssr = false;
