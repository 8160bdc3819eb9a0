// Before anything is drawn: whoever was never signed in here stands in front of the door. Kept by app/sync/guest.ts.
(function () {
  try {
    // As app/ui/look.ts turns it: what stands there first is not light where all else is dark.
    var look = localStorage.getItem('look')
    var dark = look === 'dark' || (look === 'system' && matchMedia('(prefers-color-scheme: dark)').matches)
    if (dark) document.documentElement.classList.add('dark')
  }
  catch (none) { /* then it is light */ }
  if (location.pathname !== '/') return
  try {
    if (localStorage.getItem('workshop-known') || sessionStorage.getItem('guest')) return
  }
  catch (none) { /* a browser that keeps nothing knows no workshop */ }
  location.replace('/door?first')
})()
