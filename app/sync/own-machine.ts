/** Whether this page is shown by the machine that the server runs on, under the address it has for itself. */
export function onOwnMachine(): boolean {
  return /^(localhost|127\.0\.0\.1|\[::1\])$/.test(location.hostname)
}
