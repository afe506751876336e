/** Send what stands in some fields of a form: it leaves them at once, and comes back where it is refused and nothing new was typed meanwhile. */
export async function takeOut<K extends string>(
  form: Record<K, string>,
  keys: K[],
  send: (typed: Record<K, string>) => Promise<boolean>,
): Promise<void> {
  const typed = { ...form };
  for (const key of keys) form[key] = '';
  if (await send(typed)) return;
  for (const key of keys) form[key] ||= typed[key];
}
