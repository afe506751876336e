"""What a page has kept and not handed over yet."""

import time

WAITING = """async () => {
  const asked = indexedDB.open('ready-corner');
  const shelf = await new Promise((r, no) => { asked.onsuccess = () => r(asked.result); asked.onerror = asked.onblocked = () => no(new Error("no shelf")); });
  const all = shelf.transaction('waiting').objectStore('waiting').getAll();
  const rows = await new Promise(r => all.onsuccess = () => r(all.result));
  shelf.close();
  return rows.filter(r => !r.refusal).length;
}"""


def handed_over(page, patience=25):
    until = time.monotonic() + patience
    while page.evaluate(WAITING) and time.monotonic() < until:
        page.wait_for_timeout(50)
    assert page.evaluate(WAITING) == 0
