// Addresses are the state that a reload returns to: /cars/tern/set/LF/gap_front.
class Router {
  path = $state(location.pathname);
  parts = $derived(this.path.split('/').filter(Boolean).map(decodeURIComponent));

  constructor() {
    addEventListener('popstate', () => (this.path = location.pathname));
  }

  go(path: string, replace = false): void {
    if (path === this.path) return;
    history[replace ? 'replaceState' : 'pushState'](null, '', path);
    this.path = path;
  }
}

export const router = new Router();

/** An action for plain links: the page stays, the address changes. */
export function link(node: HTMLAnchorElement): { destroy: () => void } {
  const follow = (event: MouseEvent) => {
    if (event.defaultPrevented || event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey) return;
    event.preventDefault();
    router.go(new URL(node.href).pathname);
  };
  node.addEventListener('click', follow);
  return { destroy: () => node.removeEventListener('click', follow) };
}
