// Before anything is drawn: whoever was never signed in here stands in front of the door. Kept by app/sync/guest.ts.
(function () {
  if (location.pathname !== '/') return
  try {
    if (localStorage.getItem('workshop-known') || sessionStorage.getItem('guest')) return
  }
  catch (none) { /* a browser that keeps nothing knows no workshop */ }
  location.replace('/door?first')
})()
