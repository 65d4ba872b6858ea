/** Whether a path (below `/api`, as it was asked for) is that of one of these routes, such as `/exchanges/:exchangeId/grades.csv`. */
export function routePatterns(routes: readonly string[]): (path: string) => boolean {
  const patterns = routes.map(patternOf);
  return (path) => patterns.some((pattern) => pattern.test(path));
}

function patternOf(route: string): RegExp {
  const parts = route.split('/').map((part) => (part.startsWith(':') ? '[^/]+' : part.replaceAll('.', '\\.')));
  return new RegExp(`^${parts.join('/')}$`);
}
