// A set that is read under an address is asked for again every four seconds: once it is withdrawn, its page says so.
setInterval(async () => {
  try {
    const answer = await fetch(location.href, { method: 'HEAD', cache: 'no-store' })
    if (answer.status === 404) location.reload()
  } catch {
    // no answer is no withdrawal
  }
}, 4000)
